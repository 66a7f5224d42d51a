import type { Schemas } from "../api/client";
import { hand, place, start, times } from "../parts/tasks";
import { sentence } from "../parts/words";

type Props = { task: Schemas["Task"]; done: boolean; onTouch: () => void };

// TaskRow is one thing to do; the whole row ticks it.
export function TaskRow({ task, done, onTouch }: Props) {
  const what =
    task.band === "now"
      ? [place(task), hand(task), start(task), times(task)].filter(Boolean).join(", ")
      : (task.do ?? (task.listen ? "listen to it" : "once through"));
  return (
    <li>
      <label className="flex w-full cursor-pointer gap-3 border-b border-line bg-raised px-4 py-3 text-left has-focus-visible:outline-3 has-focus-visible:-outline-offset-3 has-focus-visible:outline-ahead">
        <input type="checkbox" className="sr-only" checked={done} onChange={onTouch} />
        <span
          aria-hidden="true"
          className={`grid size-8 flex-none place-items-center rounded-full border-2 border-ink text-[20px] leading-none ${done ? "bg-ink text-raised" : ""}`}
        >
          {done ? "✓" : ""}
        </span>
        <span className="min-w-0 flex-1">
          <b className="block text-large font-[650]">{task.title}</b>
          <span className="block">{what}</span>
          <span className="block text-body text-soft">{sentence(task.why)}</span>
        </span>
        <span className="text-soft">{task.minutes}′</span>
      </label>
    </li>
  );
}
