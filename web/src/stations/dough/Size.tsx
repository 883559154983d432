/** Sizing the dough: by what is on hand, by mass, by factor; what is frozen, shared, kept whole, and what the bowl takes. */
import { type Said } from "../../drawing/sentence";
import { useRef, useState, type RefObject } from "react";
import { Link } from "react-router";
import type { Plan, SizeRequest } from "../../api/client";
import {
  useChangeJob,
  useChangeKitchen,
  useJobs,
  useJobsAbout,
  useKitchen,
  useSized,
} from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { number } from "../../drawing/units";
import { Amount, readTyped } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Why } from "../../kit/Fold";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { usePictureWidth } from "../../kit/narrow";
import { useFormat } from "../../kit/settings";
import { KeptVersion } from "./Dough";
import { DoughNav } from "./DoughNav";

export function Size() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const picture = useRef<SVGSVGElement>(null);
  const { dough } = plan;
  return (
    <>
      <Work dim={dim}>
        <StationHead
          title={`${format.bigMass(dough.dough_g)} of dough`}
          sub={
            dough.mixes === 1
              ? "in 1 batch"
              : `in ${dough.mixes} equal batches of ${format.mass(dough.mix_g)}`
          }
        >
          <SaveMenu>
            <SaveSvg picture={picture} name="batches" />
          </SaveMenu>
        </StationHead>
        <DoughNav jobId={job.id} />
        <KeptVersion />
        <Bowls picture={picture} dough={dough} />
        <OnHand />
      </Work>
      <TicketBox>
        <ForWhat />
        <Weighing />
        <Why name="dough" part items={dough.reasons} />
      </TicketBox>
    </>
  );
}

/** Each mix as a bar against what the mixer takes at once, cut into what the dough is for. */
function Bowls({ picture, dough }: { picture: RefObject<SVGSVGElement | null>; dough: Plan["dough"] }) {
  const format = useFormat();
  const whole = usePictureWidth();
  const shown = Math.min(dough.mixes, 8);
  const left = 74;
  const most = Math.max(dough.mix_limit_g, dough.mix_g);
  const width = whole - left - 16;
  const scale = width / most;
  const fills = { bake: "fill-cut", freeze: "fill-cold-pale", other_job: "fill-dough" } as const;
  const height = 30 + shown * 46 + (dough.mixes > shown ? 26 : 0) + 30;
  const starts = dough.parts.map((_, i) => dough.parts.slice(0, i).reduce((sum, p) => sum + p.dough_g, 0));
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${whole} ${height}`}
      className="mb-4 w-full"
      role="img"
      aria-labelledby="bowls-title bowls-desc"
    >
      <title id="bowls-title">Batches, and what the mixer takes</title>
      <desc id="bowls-desc">
        {`${dough.mixes} batches of ${format.mass(dough.mix_g)}; the mixer takes ${format.mass(dough.mix_limit_g)}. ${dough.parts.map((p) => `${p.name}: ${format.mass(p.dough_g)}`).join(", ")}.`}
      </desc>
      {Array.from({ length: shown }, (_, i) => {
        const y = 26 + i * 46;
        const [from, to] = [i * dough.mix_g, (i + 1) * dough.mix_g];
        return (
          <g key={i}>
            <text x={left - 10} y={y + 23} textAnchor="end" fontSize="15.5">{`batch ${i + 1}`}</text>
            {dough.parts.map((p, k) => {
              const a = Math.max(starts[k] ?? 0, from);
              const b = Math.min((starts[k] ?? 0) + p.dough_g, to);
              return b > a ? (
                <rect
                  key={p.name}
                  x={left + (a - from) * scale}
                  y={y}
                  width={(b - a) * scale}
                  height="34"
                  className={`${fills[p.part_use as keyof typeof fills] ?? "fill-dough"} stroke-cut-line`}
                  strokeWidth="1"
                />
              ) : null;
            })}
            <text x={left + 12} y={y + 23} fontSize="16" fontWeight="600" className="num">
              {format.mass(dough.mix_g)}
            </text>
          </g>
        );
      })}
      {dough.mixes > shown ? (
        <text
          x={left}
          y={26 + shown * 46 + 16}
          fontSize="15"
          className="soft"
        >{`${dough.mixes - shown} more like this`}</text>
      ) : null}
      <line
        x1={left + dough.mix_limit_g * scale}
        x2={left + dough.mix_limit_g * scale}
        y1="20"
        y2={height - 26}
        className="stroke-warm"
        strokeWidth="2"
        strokeDasharray="5 4"
      />
      <text
        x={left + dough.mix_limit_g * scale}
        y="14"
        textAnchor="end"
        fontSize="15"
        className="soft"
      >{`mixer limit ${format.mass(dough.mix_limit_g)}`}</text>
      <text x={left} y={height - 6} fontSize="15" className="soft">
        {dough.parts
          .map(
            (p) =>
              `${p.part_use === "freeze" ? `${p.pieces} for the freezer` : p.name}: ${format.mass(p.dough_g)}`,
          )
          .join("   ")}
      </text>
    </svg>
  );
}

type By = SizeRequest["by"];

function OnHand() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const [by, setBy] = useState<By>("on_hand");
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [question, setQuestion] = useState<SizeRequest>();
  const [fault, setFault] = useState<Said>();
  const sized = useSized(job.id, question);
  const answer = sized.data;
  const weights = plan.dough.weights;
  const ask = async (values: Record<string, string>, kind: By) => {
    setFault(undefined);
    try {
      if (kind === "dough") {
        if (values.dough)
          setQuestion({ by: "dough", dough_g: await readTyped(format, "mass", values.dough) });
      } else if (kind === "factor") {
        if (values.factor)
          setQuestion({
            by: "factor",
            factor: Number(values.factor.replace(",", ".").replace(/\s*(x|×|times)$/i, "")) || 0,
          });
      } else {
        const on_hand = [];
        for (const w of weights) {
          const text = values[w.ingredient]?.trim();
          if (text) on_hand.push({ ingredient: w.ingredient, grams: await readTyped(format, "mass", text) });
        }
        if (on_hand.length > 0) setQuestion({ by: "on_hand", on_hand });
      }
    } catch (error) {
      setFault(faultOf(error, "text") ?? otherFault(error, []) ?? "Can’t use that. Check the amounts.");
    }
  };
  const input = (key: string, label: string, placeholder: string) => (
    <label key={key} className="block">
      <span className="mb-1 block text-fine text-soft">{label}</span>
      <input
        className="field num"
        placeholder={placeholder}
        value={typed[key] ?? ""}
        onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
        onBlur={() => void ask(typed, by)}
        onKeyDown={(e) => {
          if (e.key === "Enter") void ask(typed, by);
        }}
      />
    </label>
  );
  return (
    <section className="no-print rounded-xl border border-rule bg-raised p-4" aria-labelledby="size-head">
      <h3 id="size-head" className="h-part mb-2">
        How many you can make
      </h3>
      <Choice
        label="Size by"
        value={by}
        options={[
          { value: "on_hand", label: "What you have" },
          { value: "dough", label: "Weight of dough" },
          { value: "factor", label: "Times the recipe" },
        ]}
        onChange={(next) => {
          setBy(next);
          setQuestion(undefined);
          setFault(undefined);
        }}
      />
      <div className="mt-3 grid gap-3 sm:grid-cols-3">
        {by === "dough" ? input("dough", "Dough", format.mass(1000)) : null}
        {by === "factor" ? input("factor", "Times the recipe", "2") : null}
        {by === "on_hand"
          ? weights
              .filter((w) => w.mass_g >= 10)
              .slice(0, 9)
              .map((w) => input(w.ingredient, `${w.name} on hand`, format.mass(w.mass_g * plan.dough.mixes)))
          : null}
      </div>
      {by === "on_hand" ? (
        <p className="mt-2 text-fine text-soft">
          Enter what could run short. The first to run out sets the size.
        </p>
      ) : null}
      <Fault text={fault ?? (question ? otherFault(sized.error, []) : undefined)} />
      {question && answer ? (
        <div className="mt-4 border-t border-rule pt-3" aria-live="polite">
          <p className="text-lg">
            <strong>
              {answer.pans == null
                ? `${answer.pieces} × ${plan.making.kind === "cut" ? plan.cutter.name : pieceOf(plan.making.kind)}`
                : `${answer.pans === 1 ? "One pan" : `${answer.pans} pans`}, ${format.length(Math.round((answer.pan_depth_mm ?? 0) * 10) / 10)} thick`}
            </strong>
            {plan.making.kind === "cut" || plan.making.kind === "sliced"
              ? ` of ${format.length(job.thickness_mm)}`
              : ""}
            , from {format.bigMass(answer.dough_g)} of dough, {number(answer.factor, 2)} times the recipe.
          </p>
          {answer.scarce ? (
            <p>
              {answer.scarce} runs out first.
              {answer.over.length > 0
                ? ` ${answer.over.map((o) => `${format.mass(o.mass_g)} batches of ${o.name.toLowerCase()}`).join(", ")} stays over.`
                : ""}
            </p>
          ) : null}
          <p className="mt-1 text-fine text-soft">
            {answer.weights.map((w) => `${w.name.toLowerCase()} ${format.mass(w.mass_g)}`).join(", ")}
          </p>
          <button
            type="button"
            className="btn btn-main mt-3"
            disabled={answer.pieces < 1 || answer.pieces === job.pieces}
            onClick={() => change.mutate({ pieces: answer.pieces, freeze_pieces: answer.freeze_pieces })}
          >
            Make {answer.pieces}
          </button>
        </div>
      ) : null}
    </section>
  );
}

/** What a job that is not cut makes, one of it. */
const pieceOf = (kind: string): string => (kind === "sliced" ? "slice" : "portion");

function ForWhat() {
  const { job, plan } = useJobContext();
  const format = useFormat();
  const { mutateAsync: keep } = useChangeJob(job.id);
  const change = useChangeJob(job.id);
  const [page, about] = [useJobs(), useJobsAbout(job.id)];
  const jobs = [
    ...(about.data ?? []),
    ...(page.data ?? []).filter((j) => !about.data?.some((k) => k.id === j.id)),
  ];
  const alike = jobs.filter((j) => j.id !== job.id && j.formula_id === job.formula_id);
  const host = jobs.find((j) => j.id === job.dough_with);
  return (
    <Part title="Where the dough goes">
      <p className="answer">
        <Live value={format.bigMass(plan.dough.dough_g)} />
      </p>
      <ul className="mb-3 mt-2">
        {plan.dough.parts.map((p) => (
          <li key={p.name} className="row">
            <span className="text-soft">
              {p.part_use === "freeze" ? `${p.pieces} for the freezer` : `${p.pieces} × ${p.name}`}
            </span>
            <span className="num">{format.bigMass(p.dough_g)}</span>
          </li>
        ))}
      </ul>
      <div className="space-y-3">
        <Amount
          label="Total cookies"
          kind="count"
          value={job.pieces}
          field="pieces"
          onSave={(pieces) => keep({ pieces })}
        />
        <Amount
          label="Frozen as dough"
          kind="count"
          value={job.freeze_pieces ?? 0}
          field="freeze_pieces"
          onSave={(freeze_pieces) => keep({ freeze_pieces })}
        />
        {host ? (
          <div className="say">
            <p>
              Its dough is mixed with{" "}
              <Link to={`/jobs/${host.id}/dough`} className="font-semibold underline">
                {host.name}
              </Link>
              : weigh and mix it there.
            </p>
            <button
              type="button"
              className="btn btn-small mt-2"
              onClick={() => change.mutate({ dough_with: null })}
            >
              Mix it separately
            </button>
          </div>
        ) : (
          alike.map((other) => <ShareWith key={other.id} other={other} />)
        )}
        <Fault text={otherFault(change.error, [])} />
      </div>
    </Part>
  );
}

/** A job of the same formula can be mixed with this one. */
function ShareWith({
  other,
}: {
  other: { id: number; name: string; dough_with?: number | null | undefined };
}) {
  const { job } = useJobContext();
  const change = useChangeJob(other.id);
  const shared = other.dough_with === job.id;
  return (
    <div>
      <button
        type="button"
        role="switch"
        aria-checked={shared}
        className="btn btn-small !h-auto w-full !justify-start !whitespace-normal py-2 text-left"
        onClick={() => change.mutate({ dough_with: shared ? null : job.id })}
      >
        <span aria-hidden="true">{shared ? "☑" : "☐"}</span>
        <span>Mix with {other.name}</span>
      </button>
      <Fault text={faultOf(change.error, "dough_with") ?? otherFault(change.error, ["dough_with"])} />
    </div>
  );
}

function Weighing() {
  const { job } = useJobContext();
  const change = useChangeJob(job.id);
  const { mutateAsync: keepKitchen } = useChangeKitchen();
  const kitchen = useKitchen();
  const k = kitchen.data;
  return (
    <Part title="Mixer and eggs">
      <div className="space-y-3">
        <Choice
          label="Eggs"
          value={job.whole_eggs ? "whole" : "weighed"}
          options={[
            { value: "weighed", label: "Eggs by weight" },
            { value: "whole", label: "Whole eggs" },
          ]}
          onChange={(way) => change.mutate({ whole_eggs: way === "whole" })}
        />
        {k ? (
          <>
            <Amount
              label="Largest batch of stiff dough"
              kind="mass"
              value={k.mixer_limit_g}
              field="mixer_limit_g"
              step={50}
              onSave={(mixer_limit_g) => keepKitchen({ mixer_limit_g })}
            />
            <Amount
              label="Mixer bowl"
              kind="volume"
              value={k.bowl_ml ?? 0}
              unset={k.bowl_ml === null || k.bowl_ml === undefined}
              placeholder="not known"
              field="bowl_ml"
              step={100}
              onSave={(bowl_ml) => keepKitchen({ bowl_ml })}
            />
          </>
        ) : null}
        <Fault text={otherFault(change.error, [])} />
      </div>
    </Part>
  );
}
