import type { Schemas } from "../api/client";
import { months, weekdays, weekOrder } from "./dates";

type Slot = Schemas["Slot"];

// SlotFields ask for a weekly lesson.
export function SlotFields(p: { slot: Slot; day?: string; className: string; set?: (change: Partial<Slot>) => void }) {
  return (
    <>
      <label>
        {p.day ?? "Lesson on"}
        <select
          name="weekday"
          defaultValue={p.slot.weekday}
          className={p.className}
          onChange={(e) => p.set?.({ weekday: Number(e.target.value) })}
        >
          {weekOrder.map((d) => (
            <option key={d} value={d}>
              {weekdays[d]}
            </option>
          ))}
        </select>
      </label>
      <label>
        At
        <input
          name="start"
          type="time"
          required
          defaultValue={p.slot.start}
          className={p.className}
          onChange={(e) => p.set?.({ start: e.target.value })}
        />
      </label>
      <label>
        Minutes
        <input
          name="minutes"
          type="number"
          required
          min={10}
          max={120}
          defaultValue={p.slot.minutes || ""}
          className={p.className}
          onChange={(e) => p.set?.({ minutes: Number(e.target.value) })}
        />
      </label>
    </>
  );
}

// slotOf reads the fields of a form.
export const slotOf = (form: FormData): Slot => ({
  weekday: Number(form.get("weekday")),
  start: String(form.get("start")),
  minutes: Number(form.get("minutes")),
});

type Birth = { birthMonth: number; birthYear: number };

// BirthFields ask for the month of a birth; of a day nothing is kept.
export function BirthFields(p: { birth: Birth; className: string; set?: (change: Partial<Birth>) => void }) {
  return (
    <>
      <label>
        Born in
        <select
          name="birthMonth"
          defaultValue={p.birth.birthMonth}
          className={p.className}
          onChange={(e) => p.set?.({ birthMonth: Number(e.target.value) })}
        >
          {months.map((m, i) => (
            <option key={m} value={i + 1}>
              {m}
            </option>
          ))}
        </select>
      </label>
      <label>
        Year
        <input
          name="birthYear"
          type="number"
          required
          min={1900}
          max={2100}
          defaultValue={p.birth.birthYear || ""}
          className={p.className}
          onChange={(e) => p.set?.({ birthYear: Number(e.target.value) })}
        />
      </label>
    </>
  );
}
