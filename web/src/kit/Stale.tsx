/** Two hands on one thing: what the other did, and which of the two it shall be. */
import { AlertDialog } from "radix-ui";
import { useSyncExternalStore } from "react";
import type { FieldProblem } from "../api/client";
import { inUnits } from "../drawing/units";
import { sentence } from "./Fault";
import { useFormat } from "./settings";

export type Choice = "theirs" | "mine";

interface Asked {
  faults: readonly FieldProblem[];
  answer(choice: Choice): void;
}

let asked: Asked | null = null;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((l) => l());

/** Asks which of two changes of the same fields it shall be. */
export function askWhich(faults: readonly FieldProblem[]): Promise<Choice> {
  return new Promise((resolve) => {
    asked = {
      faults,
      answer: (choice) => {
        asked = null;
        tell();
        resolve(choice);
      },
    };
    tell();
  });
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** `thickness_mm` in words. */
export function fieldWords(field: string): string {
  const words = field.replace(/_(mm|c|g|min|s|k|m|ml|percent|id)$/, "").replaceAll("_", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export function StaleHere() {
  const now = useSyncExternalStore(subscribe, () => asked);
  const format = useFormat();
  return (
    <AlertDialog.Root open={now !== null}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed left-1/2 top-1/2 z-50 w-[min(30rem,94vw)] -translate-x-1/2 -translate-y-1/2 rounded-2xl bg-worktop p-6 text-ink">
          <AlertDialog.Title className="h-station mb-2">Changed elsewhere meanwhile</AlertDialog.Title>
          <AlertDialog.Description asChild>
            <ul className="mb-4 space-y-1 text-lg">
              {now?.faults.map((f) => (
                <li key={f.field}>
                  <strong>{fieldWords(f.field)}:</strong> {inUnits(sentence(f.message), format)}
                  {f.given ? ` You wanted ${inUnits(f.given, format)}.` : ""}
                </li>
              ))}
            </ul>
          </AlertDialog.Description>
          <div className="flex flex-wrap gap-2">
            <AlertDialog.Cancel className="btn" onClick={() => now?.answer("theirs")}>
              Leave it as it is now
            </AlertDialog.Cancel>
            <AlertDialog.Action className="btn btn-main" onClick={() => now?.answer("mine")}>
              Make it mine
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
