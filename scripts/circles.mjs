/**
 * Names circles among the files of the Rust crates: files that import each other, however far round. `node scripts/circles.mjs`; 1 when there is one.
 *
 * A `use` is followed to the file that defines the name, through the `pub use` of a folder's `mod.rs`; what a `mod.rs` hands on is no import
 * of its own. Test modules at the end of a file are left out.
 */
import { existsSync, readdirSync, readFileSync, statSync } from "node:fs";
import { dirname, join, relative } from "node:path";
import { fileURLToPath } from "node:url";

const ROOT = join(dirname(fileURLToPath(import.meta.url)), "..");

const filesOf = (folder) =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesOf(path) : name.endsWith(".rs") ? [path] : [];
  });

/** `{a, b::{c, d as e}}` opened up: every path of it, and the name it goes by. */
function opened(tree, before = []) {
  const text = tree.trim();
  const brace = text.indexOf("{");
  if (brace < 0) {
    const [path, as] = text.split(/\s+as\s+/);
    const parts = [...before, ...path.split("::").map((p) => p.trim()).filter(Boolean)];
    return [{ parts, name: as ?? parts.at(-1) }];
  }
  const head = text.slice(0, brace).split("::").map((p) => p.trim()).filter(Boolean);
  const inside = text.slice(brace + 1, text.lastIndexOf("}"));
  const items = [];
  let [depth, from] = [0, 0];
  for (let i = 0; i <= inside.length; i += 1) {
    if (inside[i] === "{") depth += 1;
    if (inside[i] === "}") depth -= 1;
    if (i === inside.length || (inside[i] === "," && depth === 0)) {
      if (inside.slice(from, i).trim()) items.push(inside.slice(from, i));
      from = i + 1;
    }
  }
  return items.flatMap((item) => opened(item, [...before, ...head]));
}

function read(source) {
  const modules = new Map(); // "a::b" -> { file, uses, hands }
  for (const file of filesOf(source)) {
    const parts = relative(source, file).replace(/\.rs$/, "").split("/");
    if (["lib", "main", "mod"].includes(parts.at(-1))) parts.pop();
    const text = readFileSync(file, "utf8").split(/^#\[cfg\(test\)\]\s*\n(?:#\[.*\]\s*\n)*mod \w+ \{/m)[0].replace(/\/\/.*$/gm, "");
    const all = [...text.matchAll(/^\s*(pub(?:\([^)]*\))?\s+)?use\s+([^;]+);/gm)].flatMap(([, hands, tree]) => opened(tree).map((u) => ({ ...u, hands: Boolean(hands) })));
    modules.set(parts.join("::"), { file, at: parts, all });
  }
  return modules;
}

/** The module that defines what a path names, seen from a module; undefined outside the crate. */
function defined(modules, from, parts, seen = new Set()) {
  let at = [...from];
  let rest = [...parts];
  if (rest[0] === "crate") [at, rest] = [[], rest.slice(1)];
  else if (rest[0] === "self") rest = rest.slice(1);
  else if (rest[0] === "super") while (rest[0] === "super") [at, rest] = [at.slice(0, -1), rest.slice(1)];
  else if (!modules.has([...at, rest[0]].join("::"))) return undefined;
  while (rest.length > 0 && modules.has([...at, rest[0]].join("::"))) [at, rest] = [[...at, rest[0]], rest.slice(1)];
  const here = modules.get(at.join("::"));
  if (!here) return undefined;
  const handed = rest.length > 0 ? here.all.find((u) => u.hands && (u.name === rest[0] || u.name === "*")) : undefined;
  const key = `${at.join("::")} ${rest.join("::")}`;
  if (!handed || seen.has(key)) return here;
  return defined(modules, at, handed.parts, new Set([...seen, key])) ?? here;
}

let found = 0;
for (const crate of readdirSync(join(ROOT, "crates"))) {
  const source = join(ROOT, "crates", crate, "src");
  if (!existsSync(source)) continue;
  const modules = read(source);
  const arrows = new Map();
  for (const module of modules.values()) {
    const to = new Set();
    for (const use of module.all.filter((u) => !u.hands)) {
      const target = defined(modules, module.at, use.parts);
      if (target && target.file !== module.file) to.add(target.file);
    }
    arrows.set(module.file, to);
  }
  // Tarjan's strongly connected parts.
  const [index, low, stack, on] = [new Map(), new Map(), [], new Set()];
  const visit = (file) => {
    index.set(file, index.size);
    low.set(file, index.get(file));
    stack.push(file);
    on.add(file);
    for (const next of arrows.get(file) ?? []) {
      if (!index.has(next)) visit(next);
      if (on.has(next)) low.set(file, Math.min(low.get(file), low.get(next)));
    }
    if (low.get(file) === index.get(file)) {
      const part = [];
      do part.push(stack.pop());
      while (part.at(-1) !== file);
      part.forEach((f) => on.delete(f));
      if (part.length > 1) {
        found += 1;
        console.log(`circle: ${part.map((f) => relative(ROOT, f)).toSorted().join(", ")}`);
        for (const f of part) for (const next of arrows.get(f)) if (part.includes(next)) console.log(`  ${relative(ROOT, f)} -> ${relative(ROOT, next)}`);
      }
    }
  };
  for (const file of arrows.keys()) if (!index.has(file)) visit(file);
}
if (found === 0) console.log("no circles");
process.exitCode = found === 0 ? 0 : 1;
