import { type FormEvent, useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { namedDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { field } from "./SlotForm";

type Props = { view: Schemas["CalendarView"] };

// Moves takes a lesson to another day, or off its day, and lists those that are.
export function Moves({ view }: Props) {
  const [student, setStudent] = useState(view.slots[0]?.student ?? "");
  const [give, setGive] = useState<"moved" | "student" | "teacher" | "illness">("moved");
  const slot = view.slots.find((s) => s.student === student);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const day = String(form.get("day"));
    if (give !== "moved") tell(student, { kind: "lesson_missed", day, by: give });
    else tell(student, { kind: "lesson_moved", day, to: String(form.get("to")), start: String(form.get("at")) });
  };
  return (
    <section aria-label={say("calendar.movedLessons")} className="rounded bg-raised p-3">
      <h2>{say("calendar.movedLessons")}</h2>
      {view.changes.length > 0 && (
        <ul className="my-2 divide-y divide-faint">
          {view.changes.map((c) => (
            <li key={`${c.student}${c.day}${c.kind}`} className="flex gap-3 py-1">
              <span className="w-28 text-soft">{namedDay(c.day)}</span>
              <b className="w-24 font-[620]">{c.name}</b>
              <span className={c.kind === "off" ? "line-through" : ""}>
                {c.kind === "off" ? say("calendar.notDay") : say("calendar.atTime", { time: timeOfDay(c.start) })}
              </span>
            </li>
          ))}
        </ul>
      )}
      {slot && slot.next.length > 0 && (
        <form onSubmit={submit} className="mt-2 flex flex-wrap items-end gap-3">
          <label>
            {say("calendar.student")}
            <select className={field} value={student} onChange={(e) => setStudent(e.target.value)}>
              {[...view.slots]
                .sort((a, b) => a.name.localeCompare(b.name))
                .map((s) => (
                  <option key={s.student} value={s.student}>
                    {s.name}
                  </option>
                ))}
            </select>
          </label>
          <label>
            {say("calendar.lessonOf")}
            <select name="day" key={student} className={field}>
              {slot.next.map((d) => (
                <option key={d} value={d}>
                  {namedDay(d)}
                </option>
              ))}
            </select>
          </label>
          <label>
            {say("calendar.is")}
            <select className={field} value={give} onChange={(e) => setGive(e.target.value as typeof give)}>
              <option value="moved">{say("calendar.movedTo")}</option>
              <option value="student">{say("calendar.cancelledStudent")}</option>
              <option value="teacher">{say("calendar.cancelledByYou")}</option>
              <option value="illness">{say("calendar.cancelledIllness")}</option>
            </select>
          </label>
          {give === "moved" && (
            <>
              <label>
                {say("calendar.day")}
                <input name="to" type="date" required min={view.today} className={field} />
              </label>
              <label>
                {say("calendar.at")}
                <input
                  name="at"
                  type="time"
                  required
                  key={slot.slot.start}
                  defaultValue={slot.slot.start}
                  className={field}
                />
              </label>
            </>
          )}
          <Button type="submit">{say("calendar.noteIt")}</Button>
        </form>
      )}
    </section>
  );
}
