// Makes the texts of the screens, one file a language, from the catalogues in words/: functions that
// write each message, and the types of what they take. British English is the base; another language
// names what it says otherwise.
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { parse, TYPE } from "@formatjs/icu-messageformat-parser";

const base = "en-GB";
const read = (language) => JSON.parse(readFileSync(`words/${language}.json`, "utf8"));
const languages = readdirSync("words").map((file) => file.replace(".json", ""));
const source = read(base);

// takes finds the arguments of a message: numbers, texts and what stands around a part of it.
function takes(nodes, found = new Map()) {
  for (const node of nodes) {
    if (node.type === TYPE.argument && !found.has(node.value)) found.set(node.value, "text");
    if (node.type === TYPE.plural) found.set(node.value, "number");
    if (node.type === TYPE.select) found.set(node.value, Object.keys(node.options).filter((o) => o !== "other"));
    if (node.type === TYPE.tag) found.set(node.value, "around");
    if (node.options) for (const option of Object.values(node.options)) takes(option.value, found);
    if (node.children) takes(node.children, found);
  }
  return found;
}

const text = (s) => JSON.stringify(s);

// code writes a message's parts as JavaScript, joined as texts or, where something stands around a
// part, as a list.
function code(nodes, rich, counted = "") {
  const parts = nodes.map((node) => {
    switch (node.type) {
      case TYPE.literal:
        return text(node.value);
      case TYPE.argument:
        return `(a[${text(node.value)}] ?? "")`;
      case TYPE.pound:
        return `a[${text(counted)}]`;
      case TYPE.plural: {
        const forms = Object.entries(node.options).map(([form, o]) => `${text(form)}: () => ${code(o.value, rich, node.value)}`);
        return `plural(a[${text(node.value)}], { ${forms.join(", ")} })`;
      }
      case TYPE.select: {
        const forms = Object.entries(node.options).map(([form, o]) => `${text(form)}: () => ${code(o.value, rich, counted)}`);
        return `select(a[${text(node.value)}], { ${forms.join(", ")} })`;
      }
      case TYPE.tag:
        return `around(a[${text(node.value)}], ${code(node.children, rich, counted)})`;
      default:
        throw new Error(`a message may not hold a part of type ${node.type}`);
    }
  });
  if (rich) return `[${parts.join(", ")}]`;
  return parts.length === 0 ? '""' : parts[0].startsWith('"') ? parts.join(" + ") : ['""', ...parts].join(" + ");
}

const parsed = Object.fromEntries(Object.entries(source).map(([key, message]) => [key, parse(message)]));
const isRich = (key) => [...takes(parsed[key]).values()].includes("around");

// made writes one language's functions, of the messages that a page needs.
function made(language, wanted) {
  const own = language === base ? {} : read(language);
  for (const key of Object.keys(own)) {
    if (!(key in source)) throw new Error(`${language}: no message is called ${key}`);
    const [a, b] = [parse(own[key]), parsed[key]].map((m) => [...takes(m).keys()].sort().join(" "));
    if (a !== b) throw new Error(`${language}: ${key} takes "${a}", and "${b}" is given`);
  }
  const lines = Object.keys(source)
    .filter(wanted)
    .map((key) => `  ${text(key)}: (a) => ${code(own[key] ? parse(own[key]) : parsed[key], isRich(key))},`);
  return `// Made from the catalogues in words/.
import { around, plurals, select } from "../writing";

const plural = plurals(${text(language)});

export default {
${lines.join("\n")}
};
`;
}

const type = (kind) => (kind === "number" ? "number" : kind === "around" ? "Around" : Array.isArray(kind) ? [...kind.map(text), "(string & {})"].join(" | ") : "string | number | null | undefined");

function types() {
  const of = (rich) =>
    Object.keys(source)
      .filter((key) => isRich(key) === rich)
      .map((key) => {
        const args = [...takes(parsed[key])].map(([name, kind]) => `${name}: ${type(kind)}`);
        return `  ${text(key)}: ${args.length ? `{ ${args.join("; ")} }` : "none"};`;
      })
      .join("\n");
  return `// Made from the catalogues in words/.
import type { ReactNode } from "react";

export type Around = (text: ReactNode) => ReactNode;
export type none = Record<string, never>;

// What each message takes.
export interface Takes {
${of(false)}
}

// The same of messages in which something stands around a part.
export interface RichTakes {
${of(true)}
}

export type Language = ${languages.map(text).join(" | ")};
`;
}

// said finds the messages that a page may need: those said in its files and in what they import.
function said(file, seen = new Set(), keys = new Set()) {
  const path = ["", ".ts", ".tsx"].map((end) => file + end).find((p) => /\.tsx?$/.test(p) && existsSync(p));
  if (!path || seen.has(path)) return keys;
  seen.add(path);
  const code = readFileSync(path, "utf8");
  for (const [, key] of code.matchAll(/\b(?:say|rich)\(\s*"([^"]+)"/g)) keys.add(key);
  for (const [, next] of code.matchAll(/(?:from|import\()\s*"(\.[^"]*)"/g)) said(join(dirname(path), next), seen, keys);
  return keys;
}

mkdirSync("src/words/made", { recursive: true });
const family = said("src/family/app.tsx");
for (const language of languages) {
  writeFileSync(`src/words/made/${language}.studio.js`, made(language, () => true));
  writeFileSync(`src/words/made/${language}.family.js`, made(language, (key) => family.has(key)));
}
writeFileSync("src/words/made/takes.ts", types());
