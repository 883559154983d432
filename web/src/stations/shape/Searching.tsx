/** What a search for a layout and a printed sheet have alike, for a lot by itself and for several on one sheet. */
import { at } from "../../api/base";
import type { Said } from "../../drawing/sentence";
import { Choice } from "../../kit/Choice";
import { Fault } from "../../kit/Fault";
import { SECONDS, type Seconds } from "./board";

export function ForHowLong({
  label,
  value,
  onChange,
}: {
  label: string;
  value: Seconds;
  onChange(seconds: Seconds): void;
}) {
  return (
    <Choice
      label={label}
      value={value}
      options={SECONDS.map((s) => ({ value: s, label: `${s}\u00a0s` }))}
      onChange={onChange}
    />
  );
}

/** How a search ended, or why it could not be made. */
export function CameOut({ said, fault }: { said: string; fault: Said | undefined }) {
  return (
    <>
      <p className="text-soft" role="status">
        {said}
      </p>
      <Fault text={fault} />
    </>
  );
}

/** A sheet to lay on the dough, on either paper or as a drawing; `mixed` is which of several shared ones. */
export function PrintTrueSize({ job, what, mixed }: { job: number; what: string; mixed?: number }) {
  const link = (name: string, file: string, paper?: string) => {
    const query = new URLSearchParams({
      ...(paper ? { paper } : {}),
      ...(mixed === undefined ? {} : { mixed: String(mixed) }),
    });
    return (
      <a className="underline" href={at(`/api/jobs/${job}/template.${file}?${query}`)}>
        {name}
      </a>
    );
  };
  return (
    <p className="mt-3 text-fine text-soft">
      Print {what} at true size: {link("A4", "pdf", "a4")}, {link("Letter", "pdf", "letter")}, or{" "}
      {link("SVG", "svg")}.
    </p>
  );
}
