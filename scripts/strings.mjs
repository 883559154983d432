/**
 * What is written on screens, for whoever reads it over: every text of the pages by the language's own syntax, and every text of the Rust
 * crates that is a sentence or a name. What the reader of recipes understands is not what is written, and is left out.
 *
 * `node scripts/strings.mjs` counts texts and words by folder; `--sample 80 --seed 1` draws some that have four words or more; `--root FOLDER` reads another checkout.
 */
import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, relative, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const here = resolve(dirname(fileURLToPath(import.meta.url)), "..");
const ts = createRequire(join(here, "web/package.json"))("typescript");
const option = (name) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? undefined : process.argv[at + 1];
};
const root = resolve(option("--root") ?? here);

/** Attributes that nobody reads. */
const NOT_SHOWN = new Set("className href to d id htmlFor name type viewBox role style fill stroke path kind field tone".split(" "));

function files(folder, ends) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return ["node_modules", "target", "dist", "tests"].includes(entry.name) ? [] : files(path, ends);
    return ends.some((end) => entry.name.endsWith(end)) && !/\.test\.|tests?\.rs|schema\.ts|^(tongues|speech|method)\.rs$/.test(entry.name) ? [path] : [];
  });
}

function ofPage(source) {
  const found = [];
  const visit = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isJsxAttribute(node) && NOT_SHOWN.has(node.name.getText())) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text);
    else if (ts.isTemplateExpression(node)) found.push(node.head.text + node.templateSpans.map((span) => `{}${span.literal.text}`).join(""));
    else if (ts.isJsxText(node)) found.push(node.text.replace(/\s+/g, " ").trim());
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile("page.tsx", source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX));
  return found;
}

/** Literals of Rust outside comments, attributes and tests at a file's end. */
function ofRust(source) {
  const body = source.split(/\n#\[cfg\(test\)\]\s*mod /)[0].replace(/^\s*\/\/.*$/gm, "").replace(/^\s*#\[.*$/gm, "");
  return [...body.matchAll(/"((?:[^"\\]|\\.)*)"/gs)].map(([, text]) => text.replace(/\\\n\s*/g, "").replaceAll('\\"', '"'));
}

/** A text that somebody reads: two words at least, or one that begins as a name does. No query, class or key. */
const read = (text) =>
  /[a-zA-Z]{2}/.test(text) &&
  (/^[A-Z“"{][^_]*[a-z ]/.test(text) || / /.test(text)) &&
  !/^(SELECT|INSERT|UPDATE|DELETE|PRAGMA|CREATE|ALTER|WITH|[MLHV]\d)|[a-z]-[a-z]+-?\d|\b(flex|grid|px|py|text-soft|items-center|stroke-|fill-|w-full)\b|^[a-z0-9_.\-/#:{}=&?,;]*$/.test(text);

const all = [
  ...files(join(root, "web/src"), [".ts", ".tsx"]).map((path) => [path, ofPage]),
  ...["words", "server", "store", "core"].flatMap((crate) => files(join(root, "crates", crate, "src"), [".rs"]).map((path) => [path, ofRust])),
].flatMap(([path, of]) => of(readFileSync(path, "utf8")).filter(read).map((text) => ({ path: relative(root, path), text })));

const sample = Number(option("--sample") ?? 0);
if (sample > 0) {
  // Mulberry32, so that a seed draws the same everywhere.
  let state = Number(option("--seed") ?? 1) >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const long = all.filter(({ text }) => text.split(/\s+/).filter((w) => /[A-Za-z]/.test(w)).length >= 4);
  const from = [...new Map(long.map((one) => [one.text, one])).values()];
  for (let i = 0; i < Math.min(sample, from.length); i += 1) {
    const at = i + Math.floor(next() * (from.length - i));
    [from[i], from[at]] = [from[at], from[i]];
    console.log(`${i + 1}\t${from[i].path}\t${from[i].text}`);
  }
} else {
  const counts = new Map();
  for (const { path, text } of all) {
    const folder = dirname(path).replace(/^(web\/src|crates\/[a-z]+\/src)\/?/, (m) => m).replace(/\/$/, "");
    const count = counts.get(folder) ?? { texts: 0, words: 0 };
    counts.set(folder, { texts: count.texts + 1, words: count.words + text.split(/\s+/).filter((w) => /[A-Za-z]/.test(w)).length });
  }
  for (const [folder, { texts, words }] of [...counts].toSorted()) console.log(`${folder}\t${texts}\t${words}`);
}
