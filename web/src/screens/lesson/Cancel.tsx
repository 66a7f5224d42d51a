import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";

type By = "student" | "teacher" | "illness";

const whose: Record<By, string> = {
  student: say("lesson.byTheStudent"),
  teacher: say("lesson.byYou"),
  illness: say("lesson.forIllness"),
};
const choices: Record<By, string> = {
  student: say("lesson.cancelStudent"),
  teacher: say("lesson.cancelTeacher"),
  illness: say("lesson.cancelIllness"),
};

// Cancel asks who cancels a lesson, and then tells it.
export function Cancel({ student, day, look }: { student: string; day: string; look?: "quiet" }) {
  const [asks, ask] = useState(false);
  if (!asks)
    return (
      <Button look={look} onClick={() => ask(true)}>
        {say("lesson.cancelLesson")}
      </Button>
    );
  return (
    <fieldset className="flex w-full flex-wrap items-center gap-2 rounded bg-raised p-2">
      <legend className="float-left mr-1">{say("lesson.cancelLesson2", { day: longDay(day) })}</legend>
      {(Object.keys(whose) as By[]).map((by) => (
        <Button key={by} onClick={() => tell(student, { kind: "lesson_missed", day, by })}>
          {choices[by]}
        </Button>
      ))}
      <Button look="quiet" onClick={() => ask(false)}>
        {say("lesson.keepLesson")}
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
              ? say("lesson.lessonMoved", { day: longDay(o.day), day2: longDay(o.to) })
              : say("lesson.lessonCancelled", { day: longDay(o.day), value: o.by ? ` ${whose[o.by]}` : "" })}
          </span>
          <Button onClick={() => tell(student, { kind: "retracted", ref: o.fact })}>{say("lesson.undo")}</Button>
        </p>
      ))}
    </>
  );
}
