import { useSyncExternalStore } from "react";

// Lengths are kept in centimetres and shown as this device prefers.
export type Units = "cm" | "in";

const key = "ladder.units";
const listeners = new Set<() => void>();

export const units = (): Units => (globalThis.localStorage?.getItem(key) === "in" ? "in" : "cm");

export function setUnits(to: Units) {
  localStorage.setItem(key, to);
  for (const l of listeners) l();
}

export function useUnits(): Units {
  return useSyncExternalStore((l) => {
    listeners.add(l);
    return () => listeners.delete(l);
  }, units);
}

const perInch = 2.54;

export const toShown = (cm: number, u = units()) => Math.round((u === "in" ? cm / perInch : cm) * 10) / 10;
export const toCM = (shown: number, u = units()) => Math.round((u === "in" ? shown * perInch : shown) * 10) / 10;

// length writes a length with its unit: 14 cm, 5.5 in.
export const length = (cm: number, u = units()) => `${toShown(cm, u)} ${u}`;
