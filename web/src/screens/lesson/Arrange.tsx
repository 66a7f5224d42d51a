import { may, tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { plural, sentence } from "../../parts/words";
import type { LessonView } from "./view";

type Props = { view: LessonView; at: number; go: (key: string) => void };

// Arrange is the teacher's say in a block: its minutes, its place, what fills it.
// Each touch is a fact of this lesson, and the rest of the plan answers.
export function Arrange({ view, at, go }: Props) {
  const { blocks } = view.plan;
  const block = blocks[at];
  const student = view.student.id;
  const day = view.day;
  const timed = (minutes: number) =>
    block && minutes >= block.least && minutes <= block.most
      ? () =>
          tell(student, { kind: "block_timed", day, block: block.key, minutes, sort: block.kind, was: block.minutes })
      : undefined;
  const [longer, shorter] = [timed((block?.minutes ?? 0) + 1), timed((block?.minutes ?? 0) - 1)];
  const [earlier, later, drop] = ["earlier", "later", "drop"].map((code) => may(student, block?.acts, code));
  useKeys({ "+": longer, "=": longer, "-": shorter, "[": earlier, "]": later, x: drop });
  if (!block) return null;
  return (
    <section aria-label="Change this block" className="mt-5 border-t border-faint pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="mr-2">Change it</h3>
        <Button hint="−" onClick={shorter} aria-label="Shorter by a minute" disabled={!shorter}>
          Shorter
        </Button>
        <Button hint="+" onClick={longer} aria-label="Longer by a minute" disabled={!longer}>
          Longer
        </Button>
        <Button hint="[" onClick={earlier} disabled={!earlier}>
          Earlier
        </Button>
        <Button hint="]" onClick={later} disabled={!later}>
          Later
        </Button>
        <Button hint="X" onClick={drop} disabled={!drop}>
          Leave out
        </Button>
        {block.pinned && <span className="text-soft">set to {plural(block.minutes, "minute")} by you</span>}
      </div>
      {block.choices.length > 0 && (
        <ul aria-label="Instead" className="mt-2 grid gap-2 lg:grid-cols-3">
          {block.choices.map((c) => (
            <li key={c.into}>
              <button
                type="button"
                className="size-full rounded border border-line px-3 py-2 text-left hover:bg-faint"
                onClick={() => {
                  tell(student, { kind: "block_swapped", day, block: block.key, into: c.into });
                  go(`${block.kind}:${c.into}`);
                }}
              >
                <span className="text-small text-soft">Instead</span>
                <b className="block font-[620]">{c.title}</b>
                <span className="text-small text-soft">{sentence(c.why)}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
