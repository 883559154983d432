/** The same dough chilled another way: every form in fridge and freezer over the clock, and the inside of one of them. */
import { say } from "../../drawing/sentence";
import { useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Way } from "../../api/client";
import { askWays, useSection, useWays, type WaySizes } from "../../api/cold";
import { useChangeJob } from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock, duration, shifted } from "../../drawing/time";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Cautions, Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { ColdNav } from "./ColdNav";
import { Ribbons } from "./Ribbons";
import { SectionKey, SectionPicture } from "./SectionPicture";
import { formWords } from "./words";

const SIZES = ["disc_mm", "stack", "log_mm", "bar_width_mm", "bar_height_mm"] as const;

type Shown = "fridge" | "freezer" | "both";

export function Ways() {
  const { job, plan, dim } = useJobContext();
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const ribbons = useRef<SVGSVGElement>(null);
  const inside = useRef<SVGSVGElement>(null);
  const put = (name: string, value: string) =>
    setSearch(
      (s) => {
        s.set(name, value);
        return s;
      },
      { replace: true },
    );
  const sizes: WaySizes = Object.fromEntries(
    SIZES.filter((n) => Number(search.get(n)) > 0).map((n) => [n, Number(search.get(n))]),
  );
  const found = useWays(job.id, sizes);
  const shown = (search.get("place") ?? job.chill_place) as Shown;
  const ways = (found.data ?? []).filter((w) => shown === "both" || w.place === shown);
  const way = ways.find((w) => w.key === search.get("way")) ?? ways.find((w) => w.chosen) ?? ways[0];
  const section = useSection(job.id, sizes, way?.key);
  // A size is tried first, so that a refused one stays in its field with its fault.
  const keepSize = (name: (typeof SIZES)[number]) => async (value: number) => {
    await askWays(job.id, { ...sizes, [name]: value });
    put(name, String(value));
  };
  return (
    <>
      <Work dim={dim || found.isPlaceholderData}>
        <StationHead
          title="Other ways to chill this dough"
          sub={`${format.mass(plan.cold.mass_g * plan.cold.count)}, in at ${clock(plan.cold.in_at)}`}
        >
          <SaveMenu>
            <SaveSvg picture={ribbons} name={`${job.name} ways to chill`} />
          </SaveMenu>
        </StationHead>
        <ColdNav jobId={job.id} />
        <p className="mb-3 max-w-[46rem]">{found.data ? bothRight(found.data, format.length) : ""}</p>
        <div className="no-print mb-2">
          <Choice
            label="Where to chill"
            value={shown}
            options={[
              { value: "fridge", label: "Fridge" },
              { value: "freezer", label: "Freezer" },
              { value: "both", label: "Both" },
            ]}
            onChange={(place) => put("place", place)}
          />
        </div>
        <Fault text={otherFault(found.error, [])} />
        <Ribbons
          picture={ribbons}
          ways={ways}
          night={plan.cold.overnight_min}
          inAt={plan.cold.in_at}
          chosen={way?.key}
          onChoose={(key) => put("way", key)}
        />
        {way && section.data ? (
          <Inside
            key={section.data.way.key}
            picture={inside}
            section={section.data}
            inAt={plan.cold.in_at}
            dim={section.isPlaceholderData}
            jobName={job.name}
          />
        ) : null}
      </Work>
      <TicketBox>
        {way ? <WayTicket way={way} inAt={plan.cold.in_at} jobId={job.id} /> : null}
        <Part title="Sizes">
          <div className="grid grid-cols-2 gap-3">
            <Amount
              label="Disc thickness"
              kind="length"
              value={sizes.disc_mm ?? job.disc_mm}
              field="disc_mm"
              onSave={keepSize("disc_mm")}
            />
            <Amount
              label="Sheets in a stack"
              kind="count"
              value={sizes.stack ?? sizeOf(found.data, "stack", "count")}
              field="stack"
              onSave={keepSize("stack")}
            />
            <Amount
              label="Log diameter"
              kind="length"
              value={sizes.log_mm ?? sizeOf(found.data, "log", "diameter_mm")}
              field="log_mm"
              onSave={keepSize("log_mm")}
            />
            <span />
            <Amount
              label="Square log width"
              kind="length"
              value={sizes.bar_width_mm ?? sizeOf(found.data, "bar", "width_mm")}
              field="bar_width_mm"
              onSave={keepSize("bar_width_mm")}
            />
            <Amount
              label="Square log height"
              kind="length"
              value={sizes.bar_height_mm ?? sizeOf(found.data, "bar", "height_mm")}
              field="bar_height_mm"
              onSave={keepSize("bar_height_mm")}
            />
          </div>
        </Part>
        <Cautions items={plan.cautions} />
      </TicketBox>
    </>
  );
}

/** A size that was not asked for, as the server took it. */
function sizeOf(ways: readonly Way[] | undefined, kind: Way["piece"]["kind"], size: string): number {
  const piece = ways?.find((w) => w.piece.kind === kind)?.piece;
  return piece ? Number((piece as Record<string, unknown>)[size]) : 0;
}

function WayTicket({ way, inAt, jobId }: { way: Way; inAt: string; jobId: number }) {
  const format = useFormat();
  const change = useChangeJob(jobId);
  const { told } = way;
  const piece = way.piece;
  const { take } = way;
  return (
    <>
      <Part title={`${sentenceCase(formWords(piece, format))}, ${way.place}`}>
        <p className="answer">{told == null ? "never" : clock(shifted(inAt, told.ready_min))}</p>
        <p className="mb-3 mt-1 text-soft">
          {told == null
            ? way.never && say(way.never, format)
            : `${way.purpose === "slicing" ? "Slices" : "Rolls"} clean after ${duration(told.ready_min)}${
                told.earliest_min < told.latest_min
                  ? `; ${told.earliest_min} to ${told.latest_min}\u00a0min is likely`
                  : ""
              }`}
        </p>
        <Rows>
          <Row name="Ready until">
            {told == null
              ? "–"
              : told.past_min == null
                ? "stays ready"
                : `${clock(shifted(inAt, told.past_min))}, ${duration(told.past_min)}`}
          </Row>
          <Row name="After overnight">
            {way.after_night_min == null
              ? "room too cold to soften it"
              : way.after_night_min < 0.5
                ? "use right away"
                : `soften ${duration(Math.max(1, way.after_night_min))}`}
          </Row>
          <Row name="Hands-on work before">{duration(way.hands_before_min)}</Row>
          <Row name="Hands-on work after">{duration(way.hands_after_min)}</Row>
        </Rows>
        <p className="mt-2 text-fine text-soft">{sentenceCase(way.effort)}.</p>
        {way.chosen ? (
          <p className="mt-3 font-semibold">This is your plan.</p>
        ) : take ? (
          <button type="button" className="btn btn-main mt-3" onClick={() => change.mutate(take)}>
            Use this
          </button>
        ) : null}
        <Fault text={otherFault(change.error, [])} />
      </Part>
    </>
  );
}

function Inside({
  picture,
  section,
  inAt,
  dim,
  jobName,
}: {
  picture: React.RefObject<SVGSVGElement | null>;
  section: NonNullable<ReturnType<typeof useSection>["data"]>;
  inAt: string;
  dim: boolean;
  jobName: string;
}) {
  const format = useFormat();
  const ready = section.way.ready_after_min;
  const first =
    ready == null ? section.frames.length - 1 : section.frames.findIndex((f) => f.after_min >= ready);
  const [frame, setFrame] = useState(Math.max(0, first));
  const at = section.frames[Math.min(frame, section.frames.length - 1)]?.after_min ?? 0;
  const when = `${clock(shifted(inAt, Math.round(at)))}, after ${at < 10 ? `${at.toFixed(1)}\u00a0min` : duration(at)}`;
  return (
    <section className={`mt-5 ${dim ? "opacity-60" : ""}`} aria-labelledby="inside-head">
      <div className="mb-1 flex flex-wrap items-center justify-between gap-3">
        <h3 id="inside-head" className="h-part">
          Inside the {formWords(section.way.piece, format)}: {when}
        </h3>
        <SaveSvg picture={picture} name={`${jobName} inside`} />
      </div>
      <SectionPicture picture={picture} section={section} frame={frame} purpose={section.way.purpose} />
      <SectionKey section={section} purpose={section.way.purpose} />
      <label className="no-print block">
        <span className="visually-hidden">Time since it went in</span>
        <input
          type="range"
          className="slider"
          min={0}
          max={section.frames.length - 1}
          value={Math.min(frame, section.frames.length - 1)}
          aria-valuetext={when}
          onChange={(e) => setFrame(Number(e.target.value))}
        />
      </label>
    </section>
  );
}

function sentenceCase(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Why a recipe's quarter of an hour and another's overnight are both right, in this dough's own figures. */
function bothRight(ways: readonly Way[], length: (mm: number) => string): string {
  const rolled = ways.filter((w) => w.ready_after_min != null && w.purpose === "rolling");
  const quick = rolled.find((w) => w.piece.kind === "sheet" && w.place === "fridge");
  const slow = rolled.filter((w) => w.after_night_min != null && w.place === "fridge").at(-1);
  if (
    quick?.piece.kind !== "sheet" ||
    quick.told == null ||
    slow?.told == null ||
    slow.after_night_min == null
  )
    return "";
  const name =
    slow.piece.kind === "ball"
      ? "A lump"
      : slow.piece.kind === "disc"
        ? `A ${length(slow.piece.thickness_mm)} disc`
        : "A stack";
  const rest =
    slow.after_night_min < 0.5
      ? "needs no rest"
      : `rests ${duration(Math.max(1, slow.after_night_min))} on the bench`;
  return `Rolled first, to ${length(quick.piece.thickness_mm)}, this dough is ready in ${duration(quick.told.ready_min)}. ${name} takes ${duration(slow.told.ready_min)}. Left overnight, it ${rest}.`;
}
