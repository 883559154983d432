/** A month to choose a day from. */
import { Popover } from "radix-ui";
import type { RefObject } from "react";
import { DayPicker } from "react-day-picker";

/** The library takes days as dates of the browser's own zone; only their year, month and day are used. */
const asDate = (day: string): Date => {
  const [y = 0, m = 1, d = 1] = day.slice(0, 10).split("-").map(Number);
  return new Date(y, m - 1, d, 12);
};
const asDay = (date: Date): string =>
  new Date(Date.UTC(date.getFullYear(), date.getMonth(), date.getDate())).toISOString().slice(0, 10);

export default function Calendar({
  at,
  value,
  now,
  past,
  onClose,
  onChoose,
}: {
  /** What it opens under. */
  at: RefObject<HTMLDivElement | null>;
  value: string;
  now: string;
  past: boolean;
  onClose(): void;
  onChoose(day: string): void;
}) {
  const chosen = value === "" ? undefined : asDate(value);
  const today = asDate(now);
  return (
    <Popover.Root open onOpenChange={onClose}>
      <Popover.Anchor virtualRef={at as RefObject<HTMLDivElement>} />
      <Popover.Portal>
        <Popover.Content
          className="calendar"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Choose a day"
          // The button that opened it closes it by itself; the day is typed on in its field.
          onInteractOutside={(e) => {
            if (at.current?.contains(e.target as Node)) e.preventDefault();
          }}
          onCloseAutoFocus={(e) => {
            e.preventDefault();
            at.current?.querySelector("input")?.focus();
          }}
        >
          <DayPicker
            mode="single"
            required
            // oxlint-disable-next-line jsx-a11y/no-autofocus -- it has just been opened, for choosing by keyboard
            autoFocus
            showOutsideDays
            weekStartsOn={0}
            today={today}
            selected={chosen}
            defaultMonth={chosen ?? today}
            disabled={past ? { after: today } : { before: today }}
            onSelect={(date: Date | undefined) => {
              if (date) onChoose(asDay(date));
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
