import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { longDay } from "../../parts/words";

type By = "student" | "teacher" | "illness";

const whose: Record<By, string> = { student: "by the student", teacher: "by you", illness: "for illness" };

// Cancel asks who cancels a lesson, and then tells it.
export function Cancel({ student, day, look }: { student: string; day: string; look?: "quiet" }) {
  const [asks, ask] = useState(false);
  if (!asks)
    return (
      <Button look={look} onClick={() => ask(true)}>
        Cancel lesson
      </Button>
    );
  return (
    <fieldset className="flex w-full flex-wrap items-center gap-2 rounded bg-raised p-2">
      <legend className="float-left mr-1">Cancel the lesson of {longDay(day)}?</legend>
      {(Object.keys(whose) as By[]).map((by) => (
        <Button key={by} onClick={() => tell(student, { kind: "lesson_missed", day, by })}>
          {whose[by].replace(/^./, (c) => c.toUpperCase())}
        </Button>
      ))}
      <Button look="quiet" onClick={() => ask(false)}>
        Keep the lesson
      </Button>
    </fieldset>
  );
}

// Off says which lessons are cancelled or moved, and gives each back.
export function Off({ student, off }: { student: string; off: Schemas["OffView"][] }) {
  return (
    <>
      {off.map((o) => (
        <p
          key={o.fact}
          role="status"
          className="mb-3 flex flex-wrap items-center gap-3 rounded border-l-4 border-warn bg-ground px-3 py-2"
        >
          <span>
            {o.to
              ? `The lesson of ${longDay(o.day)} is moved to ${longDay(o.to)}.`
              : `The lesson of ${longDay(o.day)} is cancelled${o.by ? ` ${whose[o.by]}` : ""}.`}
          </span>
          <Button onClick={() => tell(student, { kind: "retracted", ref: o.fact })}>Undo</Button>
        </p>
      ))}
    </>
  );
}
