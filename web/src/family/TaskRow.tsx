import type { Schemas } from "../api/client";
import { KeyPlace } from "../parts/KeyPlace";
import { say } from "../words/say";
import { Music } from "./Music";

type Props = {
  token: string;
  task: Schemas["Task"];
  done: boolean;
  heard: boolean;
  along: boolean;
  onTouch: () => void;
};

// TaskRow is one thing to do; the whole row ticks it, and beside that its music can
// be heard.
export function TaskRow({ token, task, done, heard, along, onTouch }: Props) {
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
          {!task.cards?.length && !(task.steps?.length && task.band === "now") && (
            <span className="block">{task.says.what}</span>
          )}
          {task.start && task.from > 0 && <KeyPlace start={task.start} />}
          <span className="block text-body text-soft">{task.says.why}</span>
        </span>
        {task.minutes > 0 && <span className="text-soft">{say("parts.minutesShort", { n: task.minutes })}</span>}
      </label>
      {task.steps?.length && task.band === "now" && !task.cards?.length ? <Steps steps={task.steps} /> : null}
      <Music token={token} task={task} heard={heard} along={along} />
    </li>
  );
}

// Steps are how a game goes.
function Steps({ steps }: { steps: string[] }) {
  return (
    <ol className="list-decimal space-y-1 px-4 pb-3 pl-[76px]">
      {steps.map((s) => (
        <li key={s}>{s}</li>
      ))}
    </ol>
  );
}
