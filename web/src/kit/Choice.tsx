/** One of a few, as a row of large buttons. */
import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

export interface Option<T extends string> {
  value: T;
  label: ReactNode;
}

export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly Option<T>[];
  onChange(value: T): void;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      className="seg"
      aria-label={label}
      value={value}
      onValueChange={(next) => {
        if (next && next !== value) onChange(next as T);
      }}
    >
      {options.map((o) => (
        <ToggleGroup.Item key={o.value} value={o.value} className="seg-item">
          {o.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
