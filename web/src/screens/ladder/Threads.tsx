import { say } from "../../words/say";
import type { Thread } from "./layout";

const apart = 6; // px between two threads beside a lane
const most = 4; // threads drawn; the others are told

// Threads run beside a lane from a head start to the rung that needs it: a
// circle a task, filled when it is done. One that cannot be ready is dashed
// and ends open.
export function Threads({ threads, top }: { threads: Thread[]; top: number }) {
  // what is running or cannot be ready stands nearest
  const pressing = (t: Thread) => (t.start.state === "waiting" ? 1 : 0);
  const ordered = threads.toSorted((a, b) => pressing(a) - pressing(b) || a.to - b.to);
  return ordered.map((t, i) => {
    if (i >= most)
      return (
        <li key={t.start.skill} className="sr-only">
          {told(t)}
        </li>
      );
    const late = t.start.state === "late";
    const x = -6 - i * apart;
    return (
      <li key={t.start.skill} className="pointer-events-none relative z-10" data-testid={`thread-${t.start.skill}`}>
        <span className="sr-only">{told(t)}</span>
        <span
          aria-hidden="true"
          className={`absolute ${late ? "border-l-2 border-dashed border-warn" : "w-0.5 bg-ahead"}`}
          style={{ right: x, top: top - t.to, height: Math.max(t.to - t.from, 4) }}
        />
        <span
          aria-hidden="true"
          className={`absolute h-0.5 ${late ? "bg-warn" : "bg-ahead"}`}
          style={{ right: x, width: -x, top: top - t.to - 1 }}
        />
        {t.marks.map((m, j) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: tasks are told apart by their place alone
            key={j}
            aria-hidden="true"
            className={`absolute size-2.5 rounded-full border-2 ${late ? "border-warn" : "border-ahead"} ${m.done ? "bg-ahead" : "bg-raised"}`}
            style={{ right: x - 4, top: top - m.y - 5 }}
          />
        ))}
      </li>
    );
  });
}

function told({ start: s }: Thread) {
  if (s.state === "ready") return say("ladder.isPreparedFor", { name: s.name, title: s.title });
  if (s.state === "late") return say("ladder.cannotReady", { name: s.name, title: s.title });
  return say("ladder.preparationTasksDoneReadyWeeks", {
    title: s.title,
    name: s.name,
    done: s.done,
    tasks: s.tasks.length,
    ready: s.ready,
  });
}
