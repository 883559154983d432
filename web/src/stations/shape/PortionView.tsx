/** What the dough gives in balls, scoops, ropes, presses, figures or a tray-wide bar; each drawn to scale. */
import { Says } from "../../kit/Says";
import { useRef } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { askPortion, usePortion, type Portioned, type PortionQuery } from "../../api/logs";
import { useChangeJob } from "../../api/queries";
import type { Making } from "../../app/lots";
import { useJobContext } from "../../app/JobFrame";
import { duration } from "../../drawing/time";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { Live } from "../../kit/Live";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, Row, Rows, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { Parts } from "./Parts";
import { PortionDrawing } from "./PortionDrawing";
import { ShapeNav } from "./ShapeNav";

type Kind = PortionQuery["kind"];
export type Size = Exclude<keyof PortionQuery, "kind" | "parts" | "batch_g" | "bent" | "spoon" | "heaped">;
export type Bent = NonNullable<PortionQuery["bent"]>;

/** What a rope is bent to. */
export const BENT: readonly { value: Bent; label: string }[] = [
  { value: "straight", label: "Straight" },
  { value: "crescent", label: "Crescent" },
  { value: "ring", label: "Ring" },
  { value: "knot", label: "Knot" },
  { value: "twist", label: "Twist" },
];

export const KINDS: readonly { value: Kind; label: string }[] = [
  { value: "ball", label: "Ball" },
  { value: "scoop", label: "Scoop" },
  { value: "spoon", label: "Spoon" },
  { value: "rope", label: "Rope" },
  { value: "pressed", label: "Pressed" },
  { value: "stamped", label: "Stamped" },
  { value: "thumbprint", label: "Thumbprint" },
  { value: "figure", label: "Figure" },
  { value: "piped", label: "Piped" },
  { value: "tray_bar", label: "Bars" },
];

/** What a spoon is, and how full. */
export const SPOONS: readonly {
  value: string;
  label: string;
  spoon: NonNullable<PortionQuery["spoon"]>;
  heaped: boolean;
}[] = [
  { value: "teaspoon", label: "Teaspoon, level", spoon: "teaspoon", heaped: false },
  { value: "teaspoon heaped", label: "heaped", spoon: "teaspoon", heaped: true },
  { value: "tablespoon", label: "Tablespoon, level", spoon: "tablespoon", heaped: false },
  { value: "tablespoon heaped", label: "heaped", spoon: "tablespoon", heaped: true },
];

export const spoonOf = (spoon: string | null | undefined, heaped: boolean | null | undefined): string =>
  `${spoon ?? "tablespoon"}${heaped ? " heaped" : ""}`;

/** What a size is called where it is another thing than elsewhere. */
export const labelOf = (kind: Kind, name: Size, label: string): string =>
  kind === "stamped"
    ? name === "across_mm"
      ? "Stamp, across"
      : name === "deep_mm"
        ? "Relief, deep"
        : label
    : kind === "scoop" || kind === "spoon"
      ? name === "mass_g"
        ? "One weighs"
        : label
      : label;

export const FIELDS: Partial<
  Record<Size, { label: string; kind: "mass" | "length" | "count"; step: number }>
> = {
  mass_g: { label: "Weight each", kind: "mass", step: 1 },
  scoop: { label: "Scoop number (#)", kind: "count", step: 1 },
  across_mm: { label: "Diameter", kind: "length", step: 1 },
  width_mm: { label: "Pan width", kind: "length", step: 5 },
  length_mm: { label: "Length", kind: "length", step: 5 },
  thickness_mm: { label: "Thickness", kind: "length", step: 1 },
  corner_mm: { label: "Corner radius", kind: "length", step: 5 },
  dent_mm: { label: "Dent diameter", kind: "length", step: 1 },
  deep_mm: { label: "Dent depth", kind: "length", step: 1 },
  columns: { label: "Bars across", kind: "count", step: 1 },
  rows: { label: "Bars along", kind: "count", step: 1 },
};

export const WORD: Record<Kind, string> = {
  ball: "balls",
  scoop: "scoops",
  spoon: "drop cookies",
  stamped: "stamped cookies",
  rope: "ropes",
  pressed: "pressed discs",
  thumbprint: "thumbprints",
  figure: "figures",
  piped: "piped cookies",
  tray_bar: "bars",
};

export function PortionView() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const change = useChangeJob(job.id);
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const picture = useRef<SVGSVGElement>(null);
  const kind = KINDS.find((k) => k.value === search.get("kind"))?.value ?? "ball";
  const query = { ...Object.fromEntries(search), kind } as unknown as PortionQuery;
  const asked = usePortion(job.id, query);
  const found = asked.error ? undefined : asked.data;
  const put = async (more: Record<string, string>) => {
    const next: Record<string, string> = { ...Object.fromEntries(search), kind, ...more };
    // What one of another scoop weighs, nobody has said.
    if (more.scoop) delete next.mass_g;
    await askPortion(job.id, next as unknown as PortionQuery);
    setSearch(next, { replace: true });
  };
  const sizes = Object.entries(found ? withWeight(kind, found.sizes, found.mass_g) : {}).filter(
    (e): e is [Size, number] => e[0] in FIELDS && typeof e[1] === "number",
  );
  return (
    <>
      <Work dim={dim || asked.isPlaceholderData}>
        <StationHead title="Portions" sub={found ? `${format.mass(found.mass_g)} each` : undefined}>
          <SaveMenu>
            <SaveSvg picture={picture} name={`${job.name} portion`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <Fault text={otherFault(asked.error, [])} />
        {found ? <PortionDrawing picture={picture} kind={kind} found={found} /> : null}
      </Work>
      <TicketBox>
        <Part title={`How many ${WORD[kind]}`}>
          <p className="answer">
            <Live value={found ? String(found.pieces) : ""} />
          </p>
          {found ? <p className="mt-1 text-soft">{wordsOf(found, format)}</p> : null}
        </Part>
        <Part title="How you shape it">
          <Choice
            label="Portion"
            value={kind}
            options={KINDS}
            onChange={(k) => setSearch({ kind: k }, { replace: true })}
          />
          {found?.sizes.spoon ? (
            <div className="mt-3">
              <Choice
                label="Which spoon"
                value={spoonOf(found.sizes.spoon, found.sizes.heaped)}
                options={SPOONS}
                onChange={(v) => setSearch(spoonSearch(v), { replace: true })}
              />
            </div>
          ) : null}
          {found?.sizes.bent ? (
            <div className="mt-3">
              <Choice
                label="Bent to"
                value={found.sizes.bent}
                options={BENT}
                onChange={(bent) => setSearch({ kind, bent }, { replace: true })}
              />
            </div>
          ) : null}
          <div className="mt-3 grid grid-cols-2 gap-3">
            {sizes.map(([name, value]) => {
              const f = FIELDS[name];
              return f ? (
                <Amount
                  key={name}
                  label={labelOf(kind, name, f.label)}
                  kind={f.kind}
                  step={f.step}
                  value={Math.round(value * 10) / 10}
                  field={name}
                  onSave={(v) => put({ [name]: String(v) })}
                />
              ) : null;
            })}
            {found ? (
              <Amount
                label="Total dough"
                kind="mass"
                step={50}
                value={Math.round(found.batch_g)}
                field="batch_g"
                onSave={(v) => put({ batch_g: String(v) })}
              />
            ) : null}
          </div>
          {found?.sizes.parts_g ? (
            <Parts
              parts_g={found.sizes.parts_g}
              field="parts"
              onSave={(parts) => put({ parts: parts.join(",") })}
            />
          ) : null}
        </Part>
        {found ? (
          <Part title="Use it for this item">
            <p className="mb-2 text-fine text-soft">
              {isPortioned(job.making)
                ? "This item is already portioned: these sizes replace its own."
                : "Just trying: the job is unchanged."}
            </p>
            <button
              type="button"
              className="btn btn-small"
              disabled={change.isPending || found.pieces < 1}
              onClick={() =>
                change.mutate(
                  { making: makingOf(kind, found), pieces: found.pieces },
                  { onSuccess: () => void navigate(`/jobs/${job.id}/shape`) },
                )
              }
            >
              {`Use this: ${found.pieces} ${WORD[kind]}`}
            </button>
            <Fault text={otherFault(change.error, [])} />
          </Part>
        ) : null}
        {found ? (
          <Part title="Chill until firm">
            <Rows>
              {found.firm.map((f) => (
                <Row key={f.place} name={`In the ${f.place}`}>
                  {f.least_min == null || f.most_min == null ? (
                    f.never ? (
                      <Says of={f.never} />
                    ) : (
                      "won’t firm up"
                    )
                  ) : (
                    `${duration(f.least_min)} to ${duration(f.most_min)}`
                  )}
                </Row>
              ))}
            </Rows>
            <p className="mt-2 text-fine text-soft">
              Straight from the bowl, uncovered.{" "}
              {kind === "figure"
                ? "The thickest part decides."
                : kind === "tray_bar"
                  ? "Spread on its tray."
                  : found.chills_as.kind === "sheet"
                    ? "Flat on its tray."
                    : "Leave space around each."}
            </p>
          </Part>
        ) : null}
      </TicketBox>
    </>
  );
}

/** A scoop or spoon has its weight to be typed, by its volume until somebody does. */
export const withWeight = <S extends object>(kind: Kind, sizes: S, mass_g: number): S =>
  kind === "scoop" || kind === "spoon" ? { ...sizes, mass_g } : sizes;

function spoonSearch(value: string): Record<string, string> {
  const chosen = SPOONS.find((s) => s.value === value) ?? SPOONS[2];
  return { kind: "spoon", spoon: chosen?.spoon ?? "tablespoon", heaped: String(chosen?.heaped ?? false) };
}

const isPortioned = (making: Making | undefined): boolean =>
  making !== undefined && making.kind !== "cut" && making.kind !== "sliced";

/** The portion as a lot keeps it: the sizes of its own kind. */
function makingOf(kind: Kind, found: Portioned): Making {
  const { parts_mm: _, ...sizes } = found.sizes;
  return {
    kind,
    ...Object.fromEntries(Object.entries(sizes).filter(([, v]) => v != null)),
  } as unknown as Making;
}

function wordsOf(found: Portioned, format: ReturnType<typeof useFormat>): string {
  const whole = found.tray_g == null ? "" : ` Full pan: ${format.mass(found.tray_g)}.`;
  const filling =
    found.filling_g == null
      ? ""
      : ` Jam: ${format.mass(found.filling_g)} each, ${format.mass(found.filling_g * found.pieces)} total.`;
  return `From ${format.mass(found.batch_g)} of dough, ${format.mass(found.rest_g)} left over. Before baking: ${format.length(Math.round(found.across_mm * 10) / 10)} wide, ${format.length(Math.round(found.high_mm * 10) / 10)} high.${whole}${filling}`;
}
