import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { grades } from "../../parts/words";
import type { LessonView } from "./LessonScreen";

type Props = { view: LessonView; rung: Schemas["RungView"]; opener: boolean };

// Hearing marks how a secure piece went, in one touch.
export function Hearing({ view, rung, opener }: Props) {
  const student = view.student.id;
  const mark = (outcome: string) => {
    if (opener) tell({ student, kind: "opened_with", rung: rung.id });
    tell({ student, kind: "heard", rung: rung.id, outcome });
  };
  const told = view.noted.findLast((e) => !e.back && e.fact.kind === "heard" && e.fact.rung === rung.id)?.fact.outcome;
  const list = Object.entries(grades);
  useKeys(Object.fromEntries(list.map(([outcome], i) => [String(i + 1), () => mark(outcome)])));
  return (
    <fieldset className="mt-6">
      <legend className="mb-2 text-large">How did it go?</legend>
      <div className="grid grid-cols-2 gap-2.5 lg:grid-cols-4">
        {list.map(([outcome, name], i) => (
          <button
            key={outcome}
            type="button"
            aria-pressed={told === outcome}
            onClick={() => mark(outcome)}
            className={`flex min-h-16 items-center gap-3 rounded border-[1.5px] px-4 text-large font-[620] ${
              told === outcome ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"
            }`}
          >
            <Key>{i + 1}</Key> {name}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
