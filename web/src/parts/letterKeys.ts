import { useSyncExternalStore } from "react";

const kept = "ladder.keys.off"; // on this device

const listeners = new Set<() => void>();

function subscribe(listener: () => void) {
  listeners.add(listener);
  window.addEventListener("storage", listener); // set in another tab
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

export const letterKeysOn = () => localStorage.getItem(kept) === null;

// setLetterKeys turns single keys on or off: who speaks to the device, or touches keys
// unawares, needs them off (WCAG 2.2, 2.1.4).
export function setLetterKeys(on: boolean) {
  if (on) localStorage.removeItem(kept);
  else localStorage.setItem(kept, "1");
  for (const listener of listeners) listener();
}

// useLetterKeys tells whether single keys act on this device.
export const useLetterKeys = () => useSyncExternalStore(subscribe, letterKeysOn);
