import { useSyncExternalStore } from "react";
import { tell } from "../api/outbox";
import { say } from "../words/say";
import { Button } from "./Button";
import { useKeys } from "./keys";

// What was just done by one touch, and is taken back by another.
type Done = { says: string; student: string; facts: string[] };

const long = 12_000; // ms in which it is offered
let done: Done | undefined;
let timer: ReturnType<typeof setTimeout> | undefined;
const listeners = new Set<() => void>();

function set(next?: Done) {
  clearTimeout(timer);
  done = next;
  if (next) timer = setTimeout(set, long);
  for (const l of listeners) l();
}

// offerBack says what was told of a student, and offers to take it back for a while.
export function offerBack(says: string, student: string, ...facts: string[]) {
  set({ says, student, facts: facts.filter(Boolean) });
}

function subscribe(l: () => void) {
  listeners.add(l);
  return () => listeners.delete(l);
}

// Back is that offer, at the foot of the page.
export function Back() {
  const now = useSyncExternalStore(subscribe, () => done);
  const back = () => {
    if (!now) return;
    for (const ref of now.facts.toReversed()) tell(now.student, { kind: "retracted", ref });
    set();
  };
  useKeys({ Backspace: now && back });
  return (
    <div role="status" className="screen-only">
      {now && (
        <p className="fixed bottom-4 left-1/2 z-20 flex -translate-x-1/2 items-center gap-3 rounded border border-ink bg-raised px-4 py-2 shadow">
          {now.says}
          <Button look="main" hint="⌫" onClick={back}>
            {say("parts.takeBack")}
          </Button>
        </p>
      )}
    </div>
  );
}
