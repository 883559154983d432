/** Words that are retired (docs/words.md): no string of the screen, and no sentence of the server, goes by them again. */
import { describe, expect, it } from "vitest";

const RETIRED = [
  "Nothing more can be won",
  "Take the move back",
  "say the other two",
  "a sum beside the plan",
  "Dull middle",
  "The oven as a thing",
  "seen by anybody",
  "fat lets go",
  "done too late for one time",
  "by the look",
  "from the tray on",
  "as anybody would guess",
  "Not to be told",
  "follow no more",
  "One line asks",
  "is counted before it is settled",
  "It reads steps of",
  "that the forecast reaches",
  "of it sugars",
  "apart by commas",
  "Tell me outside",
  "Put it on the shelf",
  "Nest it",
  "Nest the sheet",
  "Let the stand-in",
  "Put the stand-in",
  "try the stand-in",
  "Take away",
  "Take it away",
  "Rim kept free",
  '"Web"',
  '"Reserve"',
  "over night",
  "Ball as it left",
  "After a night, rest",
  "the formula",
  "this formula",
  'A formula"',
  "New formula",
  "a formula file",
  "Formula file",
  "this lot",
  "the reserve",
  " points`",
  " points more",
  "several lots",
  "Several lots",
  "Add a lot",
  "Lots of this job",
  "the rim",
  "levers, one notch",
  "Levers and",
];

/** Strings and text, without comments. */
const said = (text: string): string => text.replace(/\/\*[\s\S]*?\*\//g, "").replace(/^\s*\/\/.*$/gm, "");

describe("retired words", () => {
  const all = import.meta.glob<string>(
    ["./**/*.{ts,tsx}", "!./**/*.test.*", "!./api/schema.ts", "../../crates/words/src/*.rs"],
    { query: "?raw", import: "default", eager: true },
  );
  const files = Object.entries(all).map(([name, text]) => [name, said(text)] as const);

  it("looks at the screens and the sentences", () => {
    expect(files.length).toBeGreaterThan(120);
    expect(files.some(([name]) => name.endsWith("words/src/cold.rs"))).toBe(true);
    expect(said("a /* Nest it */ b\n// Web\nc")).not.toMatch(/Nest|Web/);
  });

  it.each(RETIRED)("%s", (word) => {
    expect(files.filter(([, text]) => text.includes(word)).map(([name]) => name)).toEqual([]);
  });
});
