import type { Schemas } from "../api/client";
import { note } from "./sentences";
import { plural } from "./words";

type Task = Schemas["Task"];

// place says what of a piece a task is.
export function place(t: Task): string {
  if (t.spot) return t.spot;
  if (t.from) return t.from === t.to ? `bar ${t.from}` : `bars ${t.from}–${t.to}`;
  return t.inRow ? "pattern" : "whole";
}

const hands: Record<string, string> = { right: "right hand", left: "left hand", together: "both hands" };

export const hand = (t: Task) => (t.hands && !t.spot ? (hands[t.hands] ?? "") : "");

// start says with which finger a chunk begins, and on which key.
export function start(t: Task) {
  if (t.spot || !t.start?.finger || t.from === 0) return "";
  return `${t.start.finger === "0" ? "open" : t.start.finger} on ${note(t.start.key)}`;
}

export const times = (t: Task) => (t.inRow ? `${t.count} in a row` : plural(t.count, "time"));
