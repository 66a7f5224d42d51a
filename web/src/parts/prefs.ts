import { say } from "../words/say";

// How times and weeks are written on this device: as is usual where the language of the page is read,
// until a choice is made here. They are read once: who changes them sees the page anew.
type Prefs = { hours: "24" | "12"; week: "monday" | "sunday" };

const american = globalThis.document?.documentElement.lang === "en-US";
const usual: Prefs = american ? { hours: "12", week: "sunday" } : { hours: "24", week: "monday" };

// usualPaper is the paper that is printed on there.
export const usualPaper = american ? "Letter" : "A4";
const key = (name: keyof Prefs) => `ladder.${name}`;
const read = <N extends keyof Prefs>(name: N): Prefs[N] =>
  (globalThis.localStorage?.getItem(key(name)) as Prefs[N] | null) ?? usual[name];

export const prefs: Prefs = { hours: read("hours"), week: read("week") };

export function setPref<N extends keyof Prefs>(name: N, to: Prefs[N]) {
  localStorage.setItem(key(name), to);
  location.reload();
}

// timeOfDay writes a time such as 15:04 as this device has it: 15:04, or 3:04 pm.
export function timeOfDay(hhmm: string, hours = prefs.hours): string {
  if (hours === "24" || !/^\d\d:\d\d$/.test(hhmm)) return hhmm;
  const h = Number(hhmm.slice(0, 2));
  const time = `${h % 12 || 12}:${hhmm.slice(3)}`;
  return h < 12 ? say("parts.am", { time }) : say("parts.pm", { time });
}
