import { may, tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";
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
    <section aria-label={say("lesson.changeBlock")} className="mt-5 border-t border-faint pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="mr-2">{say("lesson.changeIt")}</h3>
        <Button hint="−" onClick={shorter} aria-label={say("lesson.shorterMinute")} disabled={!shorter}>
          {say("lesson.shorter")}
        </Button>
        <Button hint="+" onClick={longer} aria-label={say("lesson.longerMinute")} disabled={!longer}>
          {say("lesson.longer")}
        </Button>
        <Button hint="[" onClick={earlier} disabled={!earlier}>
          {say("lesson.earlier")}
        </Button>
        <Button hint="]" onClick={later} disabled={!later}>
          {say("lesson.later")}
        </Button>
        <Button hint="X" onClick={drop} disabled={!drop}>
          {say("lesson.leaveOut")}
        </Button>
        {block.pinned && <span className="text-soft">{say("lesson.setMinutes", { minutes: block.minutes })}</span>}
      </div>
      {block.choices.length > 0 && (
        <ul aria-label={say("lesson.instead")} className="mt-2 grid gap-2 lg:grid-cols-3">
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
                <span className="text-small text-soft">{say("lesson.instead")}</span>
                <b className="block font-[620]">{c.title}</b>
                <span className="text-small text-soft">{c.why.says}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
