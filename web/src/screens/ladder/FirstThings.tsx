import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { plural } from "../../parts/words";

const stands: Record<string, string> = { "": "not tried yet", nearly: "nearly", "not-yet": "not yet" };

// FirstThings lists what first meetings left open, in the order in which lessons bring it back; what
// is passed goes.
export function FirstThings({ student, aims }: { student: string; aims: Schemas["OpenAim"][] }) {
  if (aims.length === 0) return null;
  return (
    <details className="mt-4 rounded bg-raised px-3 py-2" open={aims.length <= 6}>
      <summary className="cursor-pointer font-[650]">First things: {plural(aims.length, "aim")} open</summary>
      <p className="mt-1 text-soft">They come back in lessons in this order, until each is passed.</p>
      <ol className="mt-1 divide-y divide-faint">
        {aims.map((a) => (
          <li key={a.key} className="flex items-center gap-2 py-1">
            <span className="flex-1">
              {a.asks} <span className="text-soft">{stands[a.outcome]}</span>
            </span>
            <button
              type="button"
              aria-label={`Passed: ${a.asks}`}
              title={a.exit}
              className="rounded border border-line px-2 py-0.5 font-[620] hover:bg-ground"
              onClick={() => tell(student, { kind: "probed", probe: a.key, outcome: "pass" })}
            >
              passed
            </button>
          </li>
        ))}
      </ol>
    </details>
  );
}
