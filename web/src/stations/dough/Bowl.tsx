/** The bowl: what the hand says, what to add, and a note of it with the mix. */
import { useState } from "react";
import { Link } from "react-router";
import type { BowlRequest, Mixing } from "../../api/client";
import {
  useAddMixNote,
  useBowlAdvice,
  useDeleteMixNote,
  useIngredients,
  usePutBackMixNote,
} from "../../api/queries";
import { useJobContext } from "../../app/JobFrame";
import { clock } from "../../drawing/time";
import { say, type Said } from "../../drawing/sentence";
import { number } from "../../drawing/units";
import { readTyped } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { Why } from "../../kit/Fold";
import { Part } from "../../kit/Ticket";
import { didFact } from "../../kit/said";
import { useFormat } from "../../kit/settings";

const FEELS = [
  { value: "too_sticky", label: "Too sticky" },
  { value: "dry_wont_gather", label: "Dry, won’t come together" },
  { value: "too_warm", label: "Too warm" },
] as const;
const SQUEEZES = [
  { value: "holds", label: "holds" },
  { value: "cracks", label: "holds but cracks" },
  { value: "crumbles", label: "crumbles" },
  { value: "clings", label: "sticks" },
  { value: "smears", label: "smears" },
] as const;

type Feel = BowlRequest["feel"];
type Squeeze = BowlRequest["squeeze"];

export function Bowl({ m }: { m: Mixing }) {
  const { job } = useJobContext();
  const format = useFormat();
  const ask = useBowlAdvice(job.id);
  const keep = useAddMixNote(job.id);
  const remove = useDeleteMixNote();
  const { mutateAsync: putBack } = usePutBackMixNote();
  const ingredients = useIngredients();
  const [mix, setMix] = useState(1);
  const [feel, setFeel] = useState<Feel>();
  const [squeeze, setSqueeze] = useState<Squeeze>();
  const [typed, setTyped] = useState<string>();
  const [left, setLeft] = useState("");
  const [fault, setFault] = useState<Said>();
  const dough_c = job.dough_c ?? null;
  const inquire = (f: Feel | undefined, s: Squeeze | undefined, n: number) => {
    setTyped(undefined);
    setFault(undefined);
    if (f && s) ask.mutate({ mix: n, feel: f, squeeze: s, dough_c });
  };
  const advice = feel && squeeze ? ask.data : undefined;
  const save = async () => {
    if (!feel || !squeeze || !advice) return;
    try {
      const added_g = advice.add
        ? typed === undefined
          ? advice.amount_g
          : await readTyped(format, "mass", typed)
        : 0;
      const left_over_g = left.trim() ? await readTyped(format, "mass", left) : 0;
      // The fields are free for the next before this one is kept and told everywhere: what is pressed meanwhile stays.
      setTyped(undefined);
      setLeft("");
      setFeel(undefined);
      setSqueeze(undefined);
      await keep.mutateAsync({
        mix,
        feel,
        squeeze,
        ingredient: advice.add ?? null,
        added_g,
        left_over_g,
        dough_c,
      });
    } catch (error) {
      setTyped((now) => now ?? typed);
      setLeft((now) => now || left);
      setFeel((now) => now ?? feel);
      setSqueeze((now) => now ?? squeeze);
      setFault(
        faultOf(error, "text") ??
          faultOf(error, "added_g") ??
          otherFault(error, []) ??
          "Couldn’t save that. Check the amounts.",
      );
    }
  };
  const name = (key: string | null | undefined) =>
    ingredients.data?.find((i) => i.key === key)?.name.toLowerCase() ?? key ?? "";
  return (
    <Part title="If the dough feels off">
      <div className="space-y-3">
        {m.mixes > 1 ? (
          <Choice
            label="Which mix"
            value={String(mix)}
            options={Array.from({ length: Math.min(m.mixes, 12) }, (_, i) => ({
              value: String(i + 1),
              label: `Batch ${i + 1}`,
            }))}
            onChange={(n) => {
              setMix(Number(n));
              inquire(feel, squeeze, Number(n));
            }}
          />
        ) : null}
        <p className="text-fine text-soft">How does it feel?</p>
        <Choice
          label="How it feels"
          value={feel ?? ("" as Feel)}
          options={FEELS}
          onChange={(f) => {
            setFeel(f);
            inquire(f, squeeze, mix);
          }}
        />
        <p className="text-fine text-soft">Squeeze a handful. It…</p>
        <Choice
          label="A squeezed handful"
          value={squeeze ?? ("" as Squeeze)}
          options={SQUEEZES}
          onChange={(s) => {
            setSqueeze(s);
            inquire(feel, s, mix);
          }}
        />
        <div aria-live="polite">
          {advice ? (
            <div className="space-y-2">
              <p className="say">{say(advice.say, format)}</p>
              <Why name="feel" items={advice.reasons} />
              {advice.add ? (
                <label className="block">
                  <span className="mb-1 block text-fine text-soft">
                    {advice.add_name} that went in
                    {advice.added_before_g > 0 ? `, after ${format.mass(advice.added_before_g)} before` : ""}
                  </span>
                  <input
                    className="field num"
                    value={typed ?? format.mass(advice.amount_g)}
                    onChange={(e) => setTyped(e.target.value)}
                    onFocus={(e) => e.target.select()}
                  />
                </label>
              ) : null}
              {m.held_back_g > 0 ? (
                <label className="block">
                  <span className="mb-1 block text-fine text-soft">
                    Held-back flour left, of {format.mass(m.held_back_g)}
                  </span>
                  <input
                    className="field num"
                    placeholder="0 g"
                    value={left}
                    onChange={(e) => setLeft(e.target.value)}
                  />
                </label>
              ) : null}
              <button
                type="button"
                className="btn btn-main"
                disabled={keep.isPending}
                onClick={() => void save()}
              >
                Save note
              </button>
            </div>
          ) : null}
          <Fault text={fault ?? otherFault(ask.error, [])} />
        </div>
        {m.notes.length > 0 ? (
          <ul aria-label="Notes on batches">
            {m.notes.map((n) => (
              <li key={n.id} className="row text-fine">
                <span>
                  Batch {n.mix}, {clock(n.noted_at)}:{" "}
                  {FEELS.find((f) => f.value === n.feel)?.label.toLowerCase()},{" "}
                  {SQUEEZES.find((s) => s.value === n.squeeze)?.label}
                  {n.ingredient && (n.added_g ?? 0) > 0
                    ? `; ${format.mass(n.added_g ?? 0)} ${name(n.ingredient)}`
                    : ", nothing added"}
                  {(n.left_over_g ?? 0) > 0 ? `; ${format.mass(n.left_over_g ?? 0)} left over` : ""}
                </span>
                <button
                  type="button"
                  className="min-h-11 min-w-11 text-soft"
                  aria-label={`Remove the note on batch ${n.mix}`}
                  onClick={() =>
                    remove.mutate(n.id, {
                      onSuccess: () => didFact(`Note on batch ${n.mix} removed`, () => putBack(n.id)),
                    })
                  }
                >
                  ×
                </button>
              </li>
            ))}
          </ul>
        ) : null}
        {m.learnt && (Math.abs(m.learnt.flour_percent) > 0.05 || Math.abs(m.learnt.water_percent) > 0.05) ? (
          <p className="text-fine">
            In {m.learnt.mixes === 1 ? "1 batch" : `${m.learnt.mixes} batches`} this recipe took{" "}
            {number(m.learnt.flour_percent, 1)}% more flour and {number(m.learnt.water_percent, 1)}% more
            water than it says.{" "}
            <Link
              className="font-semibold underline"
              to={`/jobs/${job.id}/dough/change?lever=bowl&flour=${m.learnt.flour_percent.toFixed(2)}&water=${m.learnt.water_percent.toFixed(2)}`}
            >
              Use this in the recipe
            </Link>
          </p>
        ) : null}
      </div>
    </Part>
  );
}
