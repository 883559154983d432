/** A length typed into a form that is sent as a whole: read by the server, its fault beside its field. */
import { useId, useState } from "react";
import type { Said } from "../../drawing/sentence";
import { readTyped } from "../../kit/Amount";
import { Fault, faultOf, otherFault } from "../../kit/Fault";
import { useFormat } from "../../kit/settings";

/** Reads sizes; what does not read is kept as the fault of its field. */
export function useSizes() {
  const format = useFormat();
  const [unread, setUnread] = useState<{ field: string; text: Said }>();
  return {
    unread,
    forget: () => setUnread(undefined),
    /** The size in millimetres; `undefined` when it does not read. */
    read: async (field: string, typed: string): Promise<number | undefined> => {
      try {
        return await readTyped(format, "length", typed);
      } catch (error) {
        setUnread({
          field,
          text: faultOf(error, "text") ?? otherFault(error, []) ?? "Can’t read that size.",
        });
        return undefined;
      }
    },
  };
}

export function SizeField({
  field,
  label,
  value,
  placeholder,
  sizes,
  refused,
  onChange,
}: {
  field: string;
  label: string;
  value: string;
  placeholder?: string;
  sizes: ReturnType<typeof useSizes>;
  /** What the server made of the form. */
  refused: unknown;
  onChange(text: string): void;
}) {
  const id = useId();
  const own = sizes.unread?.field === field ? sizes.unread.text : undefined;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-fine text-soft">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        aria-invalid={own ? true : undefined}
        onChange={(e) => onChange(e.target.value)}
      />
      <Fault text={own ?? faultOf(refused, field)} />
    </div>
  );
}

/** What the two sizes of a cutter are called. */
export function sizeNames(form: string): { first: string; second: string } {
  switch (form) {
    case "round":
      return { first: "Diameter", second: "Length" };
    case "ring":
      return { first: "Diameter", second: "Hole diameter" };
    case "letter":
      return { first: "Height", second: "Width" };
    default:
      return { first: "Width", second: "Length" };
  }
}
