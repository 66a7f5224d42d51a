import { type FormEvent, useState } from "react";
import { tell } from "../../api/outbox";
import { useDay } from "../../api/views";
import { offerBack } from "../../parts/Back";
import { Button } from "../../parts/Button";
import { longDay, namedDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { Cancel } from "./Cancel";
import type { LessonView } from "./view";

// Today is what may be different about this lesson: from afar, shorter or longer,
// not given, moved, or swapped with another student's.
export function Today({ view }: { view: LessonView }) {
  const [moving, setMoving] = useState(false);
  const [missing, setMissing] = useState(false);
  const { students = [], today } = useDay().data ?? {};
  const student = view.student.id;
  const day = view.day;
  const length = (by: number) => () =>
    tell(student, { kind: "lesson_length", day, minutes: Math.min(120, Math.max(10, view.plan.minutes + by)) });
  const move = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const to = String(form.get("to"));
    const at = String(form.get("at"));
    const other = students.find((s) => s.id === String(form.get("with")));
    if (!other?.next && !to) {
      setMissing(true);
      return;
    }
    setMissing(false);
    setMoving(false);
    if (other?.next) {
      tell(student, { kind: "lesson_moved", day, to: other.next, start: other.slot.start });
      tell(other.id, { kind: "lesson_moved", day: other.next, to: day, start: view.start });
    } else if (to) {
      offerBack(
        say("lesson.sLessonMoved", { firstName: view.student.firstName, day: longDay(to), at }),
        student,
        tell(student, { kind: "lesson_moved", day, to, start: at }),
      );
    }
  };
  if (!view.day) return null;
  const field = "rounded border border-line bg-ground px-2 py-1.5";
  return (
    <section aria-label={say("lesson.thisLesson")} className="space-y-2">
      <h2>{say("lesson.thisLesson")}</h2>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={view.remote}
          onChange={() => tell(student, { kind: "lesson_remote", day, remote: !view.remote })}
        />
        {say("lesson.onlineLesson")}
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={length(-5)} aria-label={say("lesson.5MinutesToday")}>
          −5
        </Button>
        <span>{say("count.minute", { n: view.plan.minutes })}</span>
        <Button onClick={length(5)} aria-label={say("lesson.5MinutesToday2")}>
          +5
        </Button>
      </div>
      <div className="flex flex-wrap gap-2">
        <Cancel key={day} student={student} day={day} />
        <Button onClick={() => setMoving(!moving)} aria-expanded={moving}>
          {say("lesson.rescheduleSwap")}
        </Button>
      </div>
      {moving && (
        <form onSubmit={move} className="space-y-2 rounded bg-raised p-3">
          <p className="text-soft">{say("lesson.fromAnotherTimeAnotherStudents", { day: longDay(view.day) })}</p>
          <div className="flex flex-wrap gap-2">
            <input type="date" name="to" aria-label={say("lesson.day")} min={today} className={field} />
            <input type="time" name="at" aria-label={say("lesson.time")} defaultValue={view.start} className={field} />
          </div>
          <select name="with" aria-label={say("lesson.swapWith")} className={`${field} w-full`}>
            <option value="">{say("lesson.noSwap")}</option>
            {students
              .filter((s) => s.id !== student && s.next)
              .map((s) => (
                <option key={s.id} value={s.id}>
                  {say("lesson.swapWith2", { firstName: s.firstName })} {s.next && namedDay(s.next)}{" "}
                  {timeOfDay(s.slot.start)}
                </option>
              ))}
          </select>
          {missing && <p role="alert">{say("lesson.chooseDayWhomSwapWith")}</p>}
          <Button type="submit">{say("lesson.reschedule")}</Button>
        </form>
      )}
    </section>
  );
}
