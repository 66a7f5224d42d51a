import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { say } from "../../words/say";

const stands: Record<string, string> = {
  "": say("ladder.notTriedYet"),
  nearly: say("ladder.nearlyTried"),
  "not-yet": say("ladder.notYet"),
};

// FirstThings lists what first meetings left open, in the order in which lessons bring it back; what
// is passed goes.
export function FirstThings({ student, aims }: { student: string; aims: Schemas["OpenAim"][] }) {
  if (aims.length === 0) return null;
  return (
    <details className="mt-4 rounded bg-raised px-3 py-2" open={aims.length <= 6}>
      <summary className="cursor-pointer font-[650]">
        {say("ladder.firstThingsAimsOpen", { aims: aims.length })}
      </summary>
      <p className="mt-1 text-soft">{say("ladder.theyComeBackLessonsOrder")}</p>
      <ol className="mt-1 divide-y divide-faint">
        {aims.map((a) => (
          <li key={a.key} className="flex items-center gap-2 py-1">
            <span className="flex-1">
              {a.asks.says} <span className="text-soft">{stands[a.outcome]}</span>
            </span>
            <button
              type="button"
              aria-label={say("ladder.passed", { says: a.asks.says })}
              title={a.exit.says}
              className="rounded border border-line px-2 py-0.5 font-[620] hover:bg-ground"
              onClick={() => tell(student, { kind: "probed", probe: a.key, outcome: "pass" })}
            >
              {say("ladder.passed2")}
            </button>
          </li>
        ))}
      </ol>
    </details>
  );
}
