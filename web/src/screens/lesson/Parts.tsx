import type { Schemas } from "../../api/client";
import { may } from "../../api/outbox";
import { say } from "../../words/say";

type Props = { student: string; rung: Schemas["RungView"] };

// Parts are the keys of a cycle, or the halves of a piece, in the order in which they
// are learnt; one that goes already is granted by a touch.
export function Parts({ student, rung }: Props) {
  return (
    <ul aria-label={say("lesson.parts")} className="flex flex-wrap gap-1.5">
      {rung.parts.map((p) => {
        const grant = p.due ? undefined : may(student, rung.piece, `grant:${p.id}`);
        const look = p.due
          ? "border-now bg-now-tint font-[650]"
          : p.done
            ? "border-keep bg-keep-tint"
            : "border-line hover:bg-faint";
        return (
          <li key={p.id}>
            <button
              type="button"
              disabled={!grant}
              onClick={grant}
              aria-label={`${p.name}: ${p.done ? say("lesson.isLearnt") : p.due ? say("lesson.beingLearntNow") : say("lesson.markLearnt")}`}
              className={`min-h-9 rounded border-[1.5px] px-2.5 ${look}`}
            >
              {p.name}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
