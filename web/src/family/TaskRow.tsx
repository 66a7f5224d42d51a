import type { Schemas } from "../api/client";
import { Listen } from "./Listen";

type Props = { token: string; task: Schemas["Task"]; done: boolean; heard: boolean; onTouch: () => void };

// TaskRow is one thing to do; the whole row ticks it, and beside that its music can
// be heard.
export function TaskRow({ token, task, done, heard, onTouch }: Props) {
  return (
    <li className="border-b border-line bg-raised">
      <label className="flex w-full cursor-pointer gap-3 px-4 py-3 text-left has-focus-visible:outline-3 has-focus-visible:-outline-offset-3 has-focus-visible:outline-ahead">
        <input type="checkbox" className="sr-only" checked={done} onChange={onTouch} />
        <span
          aria-hidden="true"
          className={`grid size-8 flex-none place-items-center rounded-full border-2 border-ink text-[20px] leading-none ${done ? "bg-ink text-raised" : ""}`}
        >
          {done ? "✓" : ""}
        </span>
        <span className="min-w-0 flex-1">
          <b className="block text-large font-[650]">{task.title}</b>
          <span className="block">{task.says.what}</span>
          <span className="block text-body text-soft">{task.says.why}</span>
        </span>
        <span className="text-soft">{task.minutes}′</span>
      </label>
      {heard && <Listen token={token} task={task} />}
    </li>
  );
}
