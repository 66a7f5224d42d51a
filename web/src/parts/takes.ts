import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";

export type Stroke = Schemas["Stroke"];

// leftKeys and rightKeys are what each hand taps on a computer's keyboard: the half that lies under it.
const leftKeys = "qwertasdfgzxcvb12345";

// handOf is the hand under which a key of the computer lies.
export const handOf = (key: string): "left" | "right" => (leftKeys.includes(key.toLowerCase()) ? "left" : "right");

// useTaps gathers taps while it is on: keys of the computer, and what pads report. With two hands each
// tap has the hand under which its key lies. Times are those of the events, in milliseconds from begin.
export function useTaps(on: boolean, hands: boolean, begin: number, take: (s: Stroke) => void) {
  const now = useRef(take);
  now.current = take;
  useEffect(() => {
    if (!on) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || (e.key.length > 1 && !e.key.startsWith("Arrow"))) return;
      e.preventDefault(); // while it listens, a key is a tap and nothing else
      e.stopImmediatePropagation();
      if (e.repeat) return;
      const hand = e.key === "ArrowLeft" ? "left" : e.key === "ArrowRight" ? "right" : handOf(e.key);
      now.current({ at: Math.max(0, e.timeStamp - begin), ...(hands && { hand }) });
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  }, [on, hands, begin]);
}

// useMidi gathers what a keyboard on this computer plays while it is on, by Web MIDI.
export function useMidi(on: boolean, take: (s: Stroke) => void) {
  const now = useRef(take);
  now.current = take;
  const [trouble, setTrouble] = useState("");
  useEffect(() => {
    if (!on) return;
    let over = false;
    let inputs: MIDIInput[] = [];
    const held = new Map<number, Stroke>();
    const begin = performance.now();
    const onMessage = (e: MIDIMessageEvent) => {
      const [status = 0, key = 0, velocity = 0] = e.data ?? [];
      const at = Math.max(0, e.timeStamp - begin);
      const kind = status >> 4;
      const before = held.get(key);
      if ((kind === 8 || kind === 9) && before) {
        before.length = at - before.at;
        held.delete(key);
      }
      if (kind !== 9 || velocity === 0) return;
      const stroke = { at, key, strength: velocity };
      held.set(key, stroke);
      now.current(stroke);
    };
    const listen = async () => {
      if (!navigator.requestMIDIAccess) {
        setTrouble(say("parts.browserTakesNoKeyboardsTap"));
        return;
      }
      try {
        const access = await navigator.requestMIDIAccess();
        if (over) return;
        inputs = [...access.inputs.values()];
        for (const input of inputs) input.onmidimessage = onMessage;
        setTrouble(inputs.length === 0 ? say("parts.noKeyboardConnectedPlugOne") : "");
      } catch {
        setTrouble(say("parts.keyboardMayNotUsedAllow"));
      }
    };
    void listen();
    return () => {
      over = true;
      for (const input of inputs) input.onmidimessage = null;
    };
  }, [on]);
  return trouble;
}
