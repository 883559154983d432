/** The shape: a cutter from the shelf, a built-in form, slices of a log or balls. */
import { capital } from "../drawing/sentence";
import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";
import type { Cutter, Schemas } from "../api/client";
import { CutterPicture } from "../kit/CutterPicture";

export type Form = Schemas["FormView"];

export function ShapeStep({
  value,
  cutters,
  forms,
  onChange,
}: {
  value: string;
  cutters: readonly Cutter[];
  forms: readonly Form[];
  onChange(shape: string): void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="Shape"
      className="grid grid-cols-4 gap-1.5 sm:grid-cols-6 xl:grid-cols-9"
      value={value}
      onValueChange={(next) => {
        if (next) onChange(next);
      }}
    >
      {cutters.map((c) => (
        <Pick key={c.id} value={`cutter:${c.id}`} name={c.name}>
          <CutterPicture cutter={c} size={44} />
        </Pick>
      ))}
      {forms.map((f) => (
        <Pick
          key={f.form}
          value={`form:${f.form}`}
          name={capital(f.name)}
          short={capital(f.name.split(" ").at(-1) ?? "")}
        >
          <CutterPicture cutter={f} size={44} />
        </Pick>
      ))}
      <Pick value="log" name="Log">
        <LogPicture />
      </Pick>
      <Pick value="balls" name="Balls">
        <BallsPicture />
      </Pick>
    </ToggleGroup.Root>
  );
}

function Pick({
  value,
  name,
  short = name,
  children,
}: {
  value: string;
  name: string;
  short?: string;
  children: ReactNode;
}) {
  return (
    <ToggleGroup.Item value={value} aria-label={name} className="pick items-center! px-1! py-2! text-center!">
      <span className="grid h-12 place-items-center">{children}</span>
      <span className="text-[0.875rem] leading-tight">{short}</span>
    </ToggleGroup.Item>
  );
}

const SHAPE = "fill-cut stroke-cut-line";

function LogPicture() {
  return (
    <svg width="46" height="24" viewBox="0 0 46 24" aria-hidden="true" strokeWidth="1.2">
      <rect x="1" y="3" width="38" height="18" rx="8" className={SHAPE} />
      <ellipse cx="36" cy="12" rx="7" ry="9" className="fill-pale stroke-cut-line" />
    </svg>
  );
}

function BallsPicture() {
  return (
    <svg width="44" height="40" viewBox="0 0 44 40" aria-hidden="true" strokeWidth="1.2">
      <circle cx="13" cy="27" r="11" className={SHAPE} />
      <circle cx="31" cy="27" r="11" className={SHAPE} />
      <circle cx="22" cy="13" r="11" className={SHAPE} />
    </svg>
  );
}
