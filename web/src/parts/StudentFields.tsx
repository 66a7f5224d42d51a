import { useState } from "react";
import type { Schemas } from "../api/client";
import { months, timeOfDay, weekdays, weekOrder } from "./dates";

type Slot = Schemas["Slot"];

const rhythms: [NonNullable<Slot["rhythm"]>, string][] = [
  ["", "every week"],
  ["fortnightly", "every second week"],
  ["twice", "twice a week"],
  ["irregular", "by agreement"],
];

type SlotProps = { slot: Slot; day?: string; className: string; set?: (change: Partial<Slot>) => void };

// SlotFields ask when lessons are and how often they come.
export function SlotFields(p: SlotProps) {
  const [rhythm, setRhythm] = useState(p.slot.rhythm ?? "");
  const second = p.slot.second ?? { weekday: (p.slot.weekday + 3) % 7, start: p.slot.start };
  const since = p.slot.since ?? "";
  const changeRhythm = (to: NonNullable<Slot["rhythm"]>) => {
    setRhythm(to);
    p.set?.({ rhythm: to, ...(to === "twice" && { second }) });
  };
  return (
    <>
      <label>
        Lessons come
        <select
          name="rhythm"
          defaultValue={rhythm}
          className={p.className}
          onChange={(e) => changeRhythm(e.target.value as NonNullable<Slot["rhythm"]>)}
        >
          {rhythms.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <Weekday
        name="weekday"
        says={rhythm === "irregular" ? "Usual day" : (p.day ?? "Lesson on")}
        value={p.slot.weekday}
        className={p.className}
        set={(weekday) => p.set?.({ weekday })}
      />
      <Time name="start" value={p.slot.start} className={p.className} set={(start) => p.set?.({ start })} />
      {rhythm === "twice" && (
        <>
          <Weekday
            name="weekday2"
            says="And on"
            value={second.weekday}
            className={p.className}
            set={(weekday) => p.set?.({ second: { ...second, weekday } })}
          />
          <Time
            name="start2"
            value={second.start}
            className={p.className}
            set={(start) => p.set?.({ second: { ...second, start } })}
          />
        </>
      )}
      {rhythm === "fortnightly" && (
        <label>
          One of the lessons is on
          <input
            name="since"
            type="date"
            required
            defaultValue={since}
            className={p.className}
            onChange={(e) => p.set?.({ since: e.target.value })}
          />
        </label>
      )}
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

type FieldProps<T> = { name: string; value: T; className: string; set: (to: T) => void };

function Weekday({ name, says, value, className, set }: FieldProps<number> & { says: string }) {
  return (
    <label>
      {says}
      <select name={name} defaultValue={value} className={className} onChange={(e) => set(Number(e.target.value))}>
        {weekOrder.map((d) => (
          <option key={d} value={d}>
            {weekdays[d]}
          </option>
        ))}
      </select>
    </label>
  );
}

function Time({ name, value, className, set }: FieldProps<string>) {
  return (
    <label>
      At
      <input
        name={name}
        type="time"
        required
        defaultValue={value}
        className={className}
        onChange={(e) => set(e.target.value)}
      />
    </label>
  );
}

// slotOf reads the fields of a form.
export const slotOf = (form: FormData): Slot => {
  const rhythm = String(form.get("rhythm")) as NonNullable<Slot["rhythm"]>;
  return {
    weekday: Number(form.get("weekday")),
    start: String(form.get("start")),
    minutes: Number(form.get("minutes")),
    rhythm,
    ...(rhythm === "fortnightly" && { since: String(form.get("since")) }),
    ...(rhythm === "twice" && { second: { weekday: Number(form.get("weekday2")), start: String(form.get("start2")) } }),
  };
};

// lessonTimes says in few words when a student's lessons are.
export function lessonTimes(slot: Slot) {
  const on = (at: { weekday: number; start: string }) => `${weekdays[at.weekday]?.slice(0, 3)} ${timeOfDay(at.start)}`;
  switch (slot.rhythm) {
    case "irregular":
      return "by agreement";
    case "twice":
      return slot.second ? `${on(slot)} and ${on(slot.second)}` : on(slot);
    case "fortnightly":
      return `${on(slot)}, every second week`;
    default:
      return on(slot);
  }
}

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
