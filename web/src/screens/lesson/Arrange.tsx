import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { plural, sentence } from "../../parts/words";
import type { LessonView } from "./LessonScreen";

type Props = { view: LessonView; at: number; go: (key: string) => void };

const always = ["set-up", "home"];

// Arrange is the teacher's say in a block: its minutes, its place, what fills it.
// Each touch is a fact of this lesson, and the rest of the plan answers.
export function Arrange({ view, at, go }: Props) {
  const { blocks } = view.plan;
  const block = blocks[at];
  const change = (outcome: string, more: { minutes?: number; after?: string; into?: string } = {}) =>
    block && tell({ student: view.student.id, kind: "plan_changed", day: view.day, text: block.key, outcome, ...more });
  const minutes = (by: number) => () => block && change("minutes", { minutes: Math.max(1, block.minutes + by) });
  const stays = !block || always.includes(block.kind);
  const before = blocks[at - 2];
  const after = blocks[at + 1];
  const earlier = !stays && at > 1 && before ? () => change("after", { after: before.key }) : undefined;
  const later =
    !stays && after && !always.includes(after.kind) ? () => change("after", { after: after.key }) : undefined;
  const drop = block && !stays && block.kind !== "close" && block.kind !== "open" ? () => change("drop") : undefined;
  useKeys({ "+": minutes(1), "=": minutes(1), "-": minutes(-1), "[": earlier, "]": later, x: drop });
  if (!block) return null;
  return (
    <section aria-label="Change this block" className="mt-5 border-t border-faint pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="mr-2">Change it</h3>
        <Button hint="−" onClick={minutes(-1)} aria-label="Shorter by a minute" disabled={block.minutes === 1}>
          Shorter
        </Button>
        <Button hint="+" onClick={minutes(1)} aria-label="Longer by a minute">
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
                  change("swap", { into: c.into });
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
