import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

const field = "mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal text-ink";
const days = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const months = Array.from({ length: 12 }, (_, i) =>
  new Intl.DateTimeFormat("en-GB", { month: "long", timeZone: "UTC" }).format(Date.UTC(2026, i, 1)),
);

// NewStudent asks the least: name, birth month and year, instrument, lesson.
export function NewStudent() {
  const go = useNavigate();
  const id = useRef(ulid()); // one form, one student, however often it is sent
  const add = useMutation({
    mutationFn: (body: Schemas["NewStudent"]) => answer(api.POST("/api/students", { body })),
    onSuccess: async (card) => {
      id.current = ulid();
      await queries.invalidateQueries({ queryKey: ["day"] });
      await go({ to: "/students/$student/ladder", params: { student: card.id } });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = Object.fromEntries(new FormData(e.currentTarget)) as Record<string, string>;
    add.mutate({
      id: id.current,
      firstName: form.firstName ?? "",
      familyName: form.familyName ?? "",
      birthYear: Number(form.birthYear),
      birthMonth: Number(form.birthMonth),
      instrument: form.instrument as Schemas["NewStudent"]["instrument"],
      slot: { weekday: Number(form.weekday), start: form.start ?? "", minutes: Number(form.minutes) },
    });
  };
  return (
    <form
      onSubmit={submit}
      aria-label="New student"
      className="grid grid-cols-2 gap-3 self-start rounded bg-raised p-4 font-[580]"
    >
      <h2 className="col-span-2 text-large">New student</h2>
      <label>
        First name
        <input name="firstName" required maxLength={100} className={field} />
      </label>
      <label>
        Family name
        <input name="familyName" maxLength={100} className={field} />
      </label>
      <label>
        Born in
        <select name="birthMonth" defaultValue="6" className={field}>
          {months.map((m, i) => (
            <option key={m} value={i + 1}>
              {m}
            </option>
          ))}
        </select>
      </label>
      <label>
        Year
        <input name="birthYear" type="number" required min={1900} max={2100} className={field} />
      </label>
      <label>
        Instrument
        <select name="instrument" className={field}>
          <option>piano</option>
          <option>cello</option>
          <option>guitar</option>
        </select>
      </label>
      <label>
        Lesson on
        <select name="weekday" className={field}>
          {days.map((d, i) => (
            <option key={d} value={(i + 1) % 7}>
              {d}
            </option>
          ))}
        </select>
      </label>
      <label>
        At
        <input name="start" type="time" required defaultValue="16:00" className={field} />
      </label>
      <label>
        Minutes
        <input name="minutes" type="number" required min={10} max={120} defaultValue={30} className={field} />
      </label>
      <p className="col-span-2 font-normal text-soft">
        Only what planning needs is kept. Name and birth month stay in this studio.
      </p>
      {add.error && (
        <div className="col-span-2">
          <Trouble>{add.error.message}</Trouble>
        </div>
      )}
      <Button look="main" type="submit" disabled={add.isPending} className="col-span-2">
        Take on
      </Button>
    </form>
  );
}
