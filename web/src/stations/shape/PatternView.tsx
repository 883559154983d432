/** A patterned icebox bar of two doughs: its section to scale, what it is built of, and how. */
import { Why } from "../../kit/Fold";
import { useRef } from "react";
import { useSearchParams } from "react-router";
import { askPattern, usePattern, type PatternQuery } from "../../api/logs";
import { useJobContext } from "../../app/JobFrame";
import { say, textOf } from "../../drawing/sentence";
import { Amount } from "../../kit/Amount";
import { Choice } from "../../kit/Choice";
import { Fault, otherFault } from "../../kit/Fault";
import { SaveMenu } from "../../kit/SaveMenu";
import { SaveSvg } from "../../kit/SaveSvg";
import { Part, StationHead, TicketBox, Work } from "../../kit/Ticket";
import { useFormat } from "../../kit/settings";
import { PatternDrawing } from "./PatternDrawing";
import { ShapeNav } from "./ShapeNav";

type Name = PatternQuery["pattern"];
type Size = Exclude<keyof PatternQuery, "pattern">;

const PATTERNS: readonly { value: Name; label: string }[] = [
  { value: "checkerboard", label: "Checkerboard" },
  { value: "pinwheel", label: "Pinwheel" },
  { value: "bullseye", label: "Bullseye" },
  { value: "stripes", label: "Stripes" },
];

interface Lever {
  size: Size;
  label: string;
  kind: "length" | "count";
}

const mm = (size: Size, label: string): Lever => ({ size, label, kind: "length" });
const count = (size: Size, label: string): Lever => ({ size, label, kind: "count" });

/** What each pattern is made of; the usual sizes are the core's. */
const LEVERS: Record<Name, readonly Lever[]> = {
  checkerboard: [count("strips", "Strips each way"), mm("strip_mm", "Strip width")],
  pinwheel: [
    mm("across_mm", "Diameter"),
    mm("heart_mm", "First turn"),
    mm("outer_mm", "Outer sheet"),
    mm("inner_mm", "Inner sheet"),
  ],
  bullseye: [mm("core_mm", "Core diameter"), mm("wrap_mm", "Wrap thickness")],
  stripes: [count("layers", "Layers"), mm("layer_mm", "Layer thickness"), mm("width_mm", "Width")],
};

export function PatternView() {
  const { job, dim } = useJobContext();
  const format = useFormat();
  const [search, setSearch] = useSearchParams();
  const picture = useRef<SVGSVGElement>(null);
  const pattern = PATTERNS.find((p) => p.value === search.get("pattern"))?.value ?? "checkerboard";
  const levers: readonly Lever[] = [...LEVERS[pattern], mm("length_mm", "Log length")];
  const given = levers.flatMap((l) =>
    search.has(l.size) ? [[l.size, Number(search.get(l.size))] as const] : [],
  );
  const query: PatternQuery = { pattern, ...Object.fromEntries(given) };
  const found = usePattern(job.id, query);
  const bar = found.error ? undefined : found.data;
  const save = (size: Size) => async (value: number) => {
    await askPattern(job.id, { ...query, [size]: value });
    setSearch(
      (s) => {
        s.set("pattern", pattern);
        s.set(size, String(value));
        return s;
      },
      { replace: true },
    );
  };
  const mass = (dough: "first" | "second") =>
    (bar?.parts ?? []).filter((p) => p.dough === dough).reduce((sum, p) => sum + p.mass_g, 0);
  return (
    <>
      <Work dim={dim || found.isPlaceholderData}>
        <StationHead
          title="Patterned log"
          sub={
            bar
              ? `${format.length(Math.round(bar.width_mm))} × ${format.length(Math.round(bar.height_mm))}, ${format.length(bar.sizes.length_mm)} long`
              : undefined
          }
        >
          <SaveMenu>
            <SaveSvg picture={picture} name={`${pattern} section`} />
          </SaveMenu>
        </StationHead>
        <ShapeNav jobId={job.id} />
        <div className="mb-4">
          <Choice
            label="Pattern"
            value={pattern}
            options={PATTERNS}
            onChange={(p) => setSearch({ pattern: p }, { replace: true })}
          />
        </div>
        <Fault text={otherFault(found.error, [])} />
        {bar ? (
          <div className="grid gap-6 md:grid-cols-[minmax(0,20rem)_minmax(0,1fr)]">
            <PatternDrawing picture={picture} bar={bar} />
            <div>
              <h3 className="h-part mb-1">How to build it</h3>
              <ol className="list-decimal space-y-2 pl-5">
                {bar.steps.map((s) => (
                  <li key={textOf(s)}>{say(s, format)}</li>
                ))}
              </ol>
            </div>
          </div>
        ) : null}
      </Work>
      <TicketBox>
        <Part title="Doughs">
          <p className="answer">{bar ? `${format.mass(mass("first"))}` : ""}</p>
          <p className="mb-3 mt-1 text-soft">
            first dough, {bar ? format.mass(mass("second")) : ""} second dough
          </p>
          <table className="w-full text-left">
            <tbody>
              {bar?.parts.map((p) => (
                <tr key={p.dough} className="border-t border-rule">
                  <th className="py-2 font-normal">{p.dough === "first" ? "First" : "Second"}</th>
                  <td className="py-2 text-right">
                    {p.count} {p.count === 1 && p.what.endsWith("s") ? p.what.slice(0, -1) : p.what},{" "}
                    {format.length(Math.round(p.width_mm * 10) / 10)} × {format.length(p.thickness_mm)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Part>
        <Part title="Sizes">
          <div className="grid grid-cols-2 gap-3">
            {levers.map((l) => {
              const value = bar?.sizes[l.size] ?? given.find(([size]) => size === l.size)?.[1];
              return value == null ? null : (
                <Amount
                  key={`${pattern} ${l.size}`}
                  label={l.label}
                  kind={l.kind}
                  value={value}
                  field={l.size}
                  onSave={save(l.size)}
                />
              );
            })}
          </div>
          <Why name="pattern" items={["Weights assume the second dough is as dense as the first."]} />
        </Part>
      </TicketBox>
    </>
  );
}
