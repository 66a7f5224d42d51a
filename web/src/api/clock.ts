import { useSyncExternalStore } from "react";

// The studio's clock: the server says what time it is there, and the browser
// counts on from it, so that a wrong clock on this device does no harm.
let shift = 0;
const listeners = new Set<() => void>();

export function setStudioTime(now: string) {
  shift = new Date(now).getTime() - Date.now();
  for (const l of listeners) l();
}

export const studioNow = () => new Date(Date.now() + shift);

function subscribe(onTick: () => void) {
  listeners.add(onTick);
  const timer = setInterval(onTick, 1000);
  return () => {
    listeners.delete(onTick);
    clearInterval(timer);
  };
}

// useSeconds gives the studio's time in whole seconds and renders on each.
export function useSeconds(): number {
  return useSyncExternalStore(subscribe, () => Math.floor((Date.now() + shift) / 1000));
}

// useMinutes renders once a minute.
export function useMinutes(): number {
  return useSyncExternalStore(subscribe, () => Math.floor((Date.now() + shift) / 60_000));
}
