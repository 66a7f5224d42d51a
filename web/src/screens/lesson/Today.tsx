import { type FormEvent, useState } from "react";
import { tell } from "../../api/outbox";
import { useDay } from "../../api/views";
import { offerBack } from "../../parts/Back";
import { Button } from "../../parts/Button";
import { longDay, namedDay, plural, timeOfDay } from "../../parts/words";
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
        `${view.student.firstName}'s lesson moved to ${longDay(to)}, ${at}.`,
        student,
        tell(student, { kind: "lesson_moved", day, to, start: at }),
      );
    }
  };
  if (!view.day) return null;
  const field = "rounded border border-line bg-ground px-2 py-1.5";
  return (
    <section aria-label="This lesson" className="space-y-2">
      <h2>This lesson</h2>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={view.remote}
          onChange={() => tell(student, { kind: "lesson_remote", day, remote: !view.remote })}
        />
        Online lesson
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <Button onClick={length(-5)} aria-label="−5 minutes today">
          −5
        </Button>
        <span>{plural(view.plan.minutes, "minute")}</span>
        <Button onClick={length(5)} aria-label="+5 minutes today">
          +5
        </Button>
      </div>
      <div className="flex flex-wrap gap-2">
        <Cancel key={day} student={student} day={day} />
        <Button onClick={() => setMoving(!moving)} aria-expanded={moving}>
          Reschedule or swap
        </Button>
      </div>
      {moving && (
        <form onSubmit={move} className="space-y-2 rounded bg-raised p-3">
          <p className="text-soft">From {longDay(view.day)} to another time, or in another student's place.</p>
          <div className="flex flex-wrap gap-2">
            <input type="date" name="to" aria-label="Day" min={today} className={field} />
            <input type="time" name="at" aria-label="Time" defaultValue={view.start} className={field} />
          </div>
          <select name="with" aria-label="Swap with" className={`${field} w-full`}>
            <option value="">no swap</option>
            {students
              .filter((s) => s.id !== student && s.next)
              .map((s) => (
                <option key={s.id} value={s.id}>
                  swap with {s.firstName}, {s.next && namedDay(s.next)} {timeOfDay(s.slot.start)}
                </option>
              ))}
          </select>
          {missing && <p role="alert">Choose a day, or whom to swap with.</p>}
          <Button type="submit">Reschedule</Button>
        </form>
      )}
    </section>
  );
}
