import { createElement, Fragment, type ReactNode } from "react";
import type { Language, RichTakes, Takes } from "./made/takes";

type Messages = Record<string, (args: object) => unknown>;

// Every text that a screen shows stands in a catalogue, one a language (web/words). The one that is
// read is loaded before the first screen.
let messages: Messages = {};

const catalogues = import.meta.glob<Messages>("./made/*.js", { import: "default" });

// The studio's pages and the families' may be read in two languages on one device.
let page: "studio" | "family" = "studio";
const key = () => `ladder.language.${page}`;
const base: Language = "en-GB";
const known = (language: string | null | undefined): language is Language =>
  !!language && `./made/${language}.studio.js` in catalogues;

// language is what this device reads: what the server said last, or what the browser asks for.
const language = (): Language => {
  const kept = globalThis.localStorage?.getItem(key());
  if (known(kept)) return kept;
  return navigator.languages.find(known) ?? base;
};

// The language that the page is written in.
let spoken: Language = base;

// speak loads the catalogue of a page.
export async function speak(of: "studio" | "family", tongue?: Language) {
  page = of;
  spoken = tongue ?? language();
  if (globalThis.document) document.documentElement.lang = spoken;
  messages = (await catalogues[`./made/${spoken}.${page}.js`]?.()) ?? {};
}

let first = true; // the server's first answer to this page

// reads keeps in which language a page is read, as the server says it. A page that has just come begins
// again in it; one that somebody works on keeps its words until it is opened next.
export function reads(tongue: string | null) {
  const begins = first;
  if (!known(tongue)) return;
  first = false;
  if (keeps(tongue) && begins) location.reload();
}

// begins has the page begin again in another language.
export function begins(tongue: string) {
  if (known(tongue) && keeps(tongue)) location.reload();
}

// keeps keeps another language for the next page; false for the one that is written, and where the
// device keeps nothing, since such a page would begin again for ever.
function keeps(tongue: Language): boolean {
  if (tongue === spoken) return false;
  try {
    localStorage.setItem(key(), tongue);
    return language() === tongue;
  } catch {
    return false;
  }
}

type With<T, K extends keyof T> = T[K] extends Record<string, never> ? [] : [args: T[K]];

// marked is what a test puts around every text that comes from here, to see those which do not.
const { marked } = globalThis as { marked?: (text: string) => string };

// say writes a message.
export function say<K extends keyof Takes>(name: K, ...args: With<Takes, K>): string {
  const text = messages[name]?.(args[0] ?? {}) as string;
  return marked ? marked(text) : text;
}

// rich writes a message in which something stands around a part.
export function rich<K extends keyof RichTakes>(name: K, args: RichTakes[K]): ReactNode {
  const parts = (messages[name]?.(args) ?? []) as ReactNode[];
  return createElement(Fragment, null, ...(marked ? ["⟦", ...parts, "⟧"] : parts));
}
