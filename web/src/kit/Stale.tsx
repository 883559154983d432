/** Two hands on one thing: what the other did, and which of the two it shall be. */
import { useSyncExternalStore } from "react";
import { sentence } from "../drawing/sentence";
import { askedNow, onAsked } from "./asked";
import { Question } from "./Asks";

/** `thickness_mm` in words. */
export function fieldWords(field: string): string {
  const words = field.replace(/_(mm|c|g|min|s|k|m|ml|percent|id)$/, "").replaceAll("_", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
}

export function StaleHere() {
  const now = useSyncExternalStore(onAsked, askedNow);
  return (
    <Question
      open={now !== null}
      title="Someone else changed this"
      about={
        <ul className="space-y-1">
          {now?.faults.map((f) => (
            <li key={f.field}>
              <strong>{fieldWords(f.field)}:</strong> {sentence(f.message)}
              {f.given ? ` You entered ${f.given}.` : ""}
            </li>
          ))}
        </ul>
      }
      yes={{ label: "Use mine", act: () => now?.answer("mine") }}
      no={{ label: "Use theirs", act: () => now?.answer("theirs") }}
    />
  );
}
