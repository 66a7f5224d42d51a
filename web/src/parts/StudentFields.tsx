import { useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { months, timeOfDay, weekdays, weekdaysShort, weekOrder } from "./dates";

type Slot = Schemas["Slot"];

const rhythms: [NonNullable<Slot["rhythm"]>, string][] = [
  ["", say("parts.everyWeek")],
  ["fortnightly", say("parts.everySecondWeek")],
  ["twice", say("parts.twiceWeek")],
  ["irregular", say("parts.byAgreement")],
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
        {say("parts.lessonsCome")}
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
        says={rhythm === "irregular" ? say("parts.usualDay") : (p.day ?? say("parts.lessonOn"))}
        value={p.slot.weekday}
        className={p.className}
        set={(weekday) => p.set?.({ weekday })}
      />
      <Time name="start" value={p.slot.start} className={p.className} set={(start) => p.set?.({ start })} />
      {rhythm === "twice" && (
        <>
          <Weekday
            name="weekday2"
            says={say("parts.andOn")}
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
          {say("parts.oneLessons")}
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
        {say("parts.minutes")}
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
      {say("parts.at2")}
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
  const on = (at: { weekday: number; start: string }) => `${weekdaysShort[at.weekday]} ${timeOfDay(at.start)}`;
  switch (slot.rhythm) {
    case "irregular":
      return say("parts.byAgreement");
    case "twice":
      return slot.second ? say("parts.and", { on: on(slot), on2: on(slot.second) }) : on(slot);
    case "fortnightly":
      return say("parts.everySecondWeek2", { on: on(slot) });
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
        {say("parts.bornIn")}
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
        {say("parts.year")}
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
