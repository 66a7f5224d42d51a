import { useSyncExternalStore } from "react";

// The studio's clock: the server says what time it is there, and the browser
// counts on from it, so that a wrong clock on this device does no harm.
let shift: number | undefined; // ms by which the studio is ahead of this device
const listeners = new Set<() => void>();

// readStudioTime takes what the server said and when it was asked, by this
// device. The studio's time lies between asking and now, so a reading that took
// long tells little: the clock moves no further than into that span. It so
// never runs backwards by a slow answer, which would put a later mark before an
// earlier one.
export function readStudioTime(said: string, asked: number) {
  const told = new Date(said).getTime();
  const least = told - Date.now();
  shift = Math.min(Math.max(shift ?? least, least), told - asked);
  for (const l of listeners) l();
}

const studioMilliseconds = () => Date.now() + (shift ?? 0);

export const studioNow = () => new Date(studioMilliseconds());

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
  return useSyncExternalStore(subscribe, () => Math.floor(studioMilliseconds() / 1000));
}

// useMinutes renders once a minute.
export function useMinutes(): number {
  return useSyncExternalStore(subscribe, () => Math.floor(studioMilliseconds() / 60_000));
}
