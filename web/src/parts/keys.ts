import { useEffect, useRef } from "react";
import { letterKeysOn } from "./letterKeys";

// useKeys listens for single keys while the screen is shown, where no text is
// typed and no menu is open, and they were not turned off; and for keys with Control or
// Command held, as mod+k, anywhere.
export function useKeys(keys: Record<string, (() => void) | undefined>) {
  const now = useRef(keys);
  now.current = keys;
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const at = e.target as HTMLElement;
      if (e.altKey) return;
      const held = e.ctrlKey || e.metaKey;
      if (!held && (!letterKeysOn() || /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName))) return;
      if (at.closest("[role=dialog],[role=menu],[role=listbox]")) return;
      if (e.key === "Enter" && at.closest("button,a")) return; // it presses what has the focus
      const act = now.current[(held ? "mod+" : "") + (e.key.length === 1 ? e.key.toLowerCase() : e.key)];
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
