import { useEffect, useRef } from "react";
import { letterKeysOn } from "./letterKeys";

// useKeys listens for single keys while the screen is shown, where no text is
// typed and no menu is open, and they were not turned off.
export function useKeys(keys: Record<string, (() => void) | undefined>) {
  const now = useRef(keys);
  now.current = keys;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const at = e.target as HTMLElement;
      if (e.ctrlKey || e.metaKey || e.altKey || !letterKeysOn() || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName)) return;
      if (at.closest("[role=dialog],[role=menu],[role=listbox]")) return;
      if (e.key === "Enter" && at.closest("button,a")) return; // it presses what has the focus
      const act = now.current[e.key.length === 1 ? e.key.toLowerCase() : e.key];
      if (act && !e.repeat) {
        e.preventDefault();
        act();
      }
    };
    // A button pressed by pointer gives the keys back to the screen, so that
    // Enter marks instead of pressing it again.
    const onClick = (e: MouseEvent) => {
      if (e.detail > 0) (e.target as HTMLElement).closest("button")?.blur();
    };
    window.addEventListener("keydown", onKey);
    window.addEventListener("click", onClick);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("click", onClick);
    };
  }, []);
}
