/** No text of the pages uses a word that was retired: every string and every text of the markup is read by the language's own syntax. */
import ts from "typescript";
import { expect, it } from "vitest";
import words from "../../crates/words/retired.txt?raw";

/** Attributes that nobody reads. */
const NOT_SHOWN = new Set(
  "className href to d id htmlFor name type viewBox role style fill stroke path kind field".split(" "),
);

const retired = words
  .split("\n")
  .filter((line) => line !== "" && !line.startsWith("#"))
  .map((line) => {
    const [word = "", say = ""] = line.split("\t");
    return { word: new RegExp(word.replaceAll("\\x{a0}", "\\u00a0"), "iu"), say };
  });

const files = import.meta.glob<string>(["./**/*.{ts,tsx}", "!./**/*.test.*", "!./api/schema.ts"], {
  query: "?raw",
  import: "default",
  eager: true,
});

/** What is written in a file, with `{}` for what is put in. */
function texts(source: string): string[] {
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isJsxAttribute(node) && NOT_SHOWN.has(node.name.getText())) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    else if (ts.isTemplateExpression(node))
      found.push(node.head.text + node.templateSpans.map((span) => `{}${span.literal.text}`).join(""));
    else if (ts.isJsxText(node)) found.push(node.text.replace(/\s+/g, " ").trim());
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile("page.tsx", source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX));
  return found;
}

/** What is wrong in one text; a lower-case word by itself is a key. */
function wrongIn(text: string): string[] {
  if (text === "" || /^[a-z0-9_.\-/#:{}]*$/.test(text)) return [];
  return retired.filter(({ word }) => word.test(text)).map(({ word, say }) => `${String(word)}: say ${say}`);
}

it("a retired word is found in markup, attributes and templates, and not in names and comments", () => {
  const page = `
    // a calliper
    const colour = { trial: "rods" };
    const page = <p className="a grey underside" title="By the calliper">Its underside, {at} %{\`${"$"}{n} guide rods\`}</p>;`;
  expect(texts(page).flatMap(wrongIn)).toHaveLength(4);
});

it("no text of the pages uses a retired word", () => {
  const all = Object.entries(files).flatMap(([path, source]) =>
    texts(source).map((text) => ({ path, text })),
  );
  expect(all.length).toBeGreaterThan(3000);
  const wrong = all.flatMap(({ path, text }) => wrongIn(text).map((why) => `${path}: “${text}”: ${why}`));
  expect(wrong.join("\n")).toBe("");
});
