import type { Schemas } from "../../api/client";
import { sentence } from "../../parts/words";

const edges: Record<string, string> = {
  ahead: "border-l-ahead",
  now: "border-l-now",
  upkeep: "border-l-keep",
  warn: "border-l-warn",
};

const heads: Record<string, (title: string) => string> = {
  "ready-to-try": (t) => `${t} is ready to try`,
  "past-its-range": (t) => `${t} is stuck`,
  "first-lesson": (t) => `Begin ${t}`,
  fading: (t) => `Bring back ${t}`,
  "in-hand": (t) => t,
  "nothing-placed": () => "Place the first piece",
};

// Suggestions say what might follow, each with its reason.
export function Suggestions({ view, choose }: { view: Schemas["LadderView"]; choose: (id: string) => void }) {
  if (view.suggestions.length === 0) {
    return <p className="text-soft">Nothing asks for a decision. The lesson plan carries on from here.</p>;
  }
  return (
    <ul className="space-y-2.5">
      {view.suggestions.map((s) => (
        <li
          key={`${s.why.code}${s.rung}`}
          className={`rounded border border-l-4 border-line bg-raised p-3 ${edges[s.band]}`}
        >
          <b className="font-[650]">{heads[s.why.code]?.(s.title) ?? s.title}</b>
          <p className="mt-0.5 text-soft">{sentence(s.why)}</p>
          {s.rung && (
            <button
              type="button"
              className="mt-1 font-[620] underline underline-offset-4"
              onClick={() => choose(s.rung)}
            >
              Show the rung
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
