import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { hoursView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { Shown, Trouble } from "../../parts/Told";
import { WorkbenchPlaces } from "../../parts/WorkbenchPlaces";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";

type Hour = Schemas["Hour"];

// keepHour keeps an hour that several students share.
export const keepHour = (body: { was?: Hour; now: Hour }) =>
  answer(api.PUT("/api/hours/{hour}", { params: { path: { hour: body.now.id } }, body }));

const whys: Record<Schemas["Group"]["why"], (of: string) => string> = {
  neighbours: (day) => say("hours.neighboursOn", { day }),
  family: (name) => say("hours.theFamily", { name }),
  instrument: (name) => say("hours.allOfThe", { name }),
};

// HoursScreen lists the hours that several students share, and begins another: who comes is chosen from
// lessons that follow each other, families and instruments, or one by one.
export function HoursScreen() {
  const query = useQuery(hoursView);
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 content-start gap-6 px-4 pt-3 pb-6 lg:grid-cols-[1fr_400px]">
          <section aria-label={say("hours.groupLessons")} className="min-w-0">
            <WorkbenchPlaces />
            <h1 className="my-3 text-head">{say("hours.groupLessons")}</h1>
            <ul className="divide-y divide-faint rounded bg-raised px-4">
              {view.hours.map((h) => (
                <li key={h.id} className="flex flex-wrap items-baseline gap-x-4 py-2.5">
                  <span className="w-52 text-soft">{longDay(h.day)}</span>
                  <Link
                    to="/workbench/hours/$hour"
                    params={{ hour: h.id }}
                    className="inline-block min-h-6 font-[650] underline-offset-4 hover:underline"
                  >
                    {h.name}
                  </Link>
                  <span className="text-soft">
                    {say("count.student", { n: h.students.length })}, {say("count.minute", { n: h.minutes })}
                  </span>
                  {h.day <= view.today && !h.marked && <span className="text-now">{say("hours.whatWasGood")}</span>}
                </li>
              ))}
              {view.hours.length === 0 && <li className="py-3 text-soft">{say("hours.nowThenStudentsMeetPlay")}</li>}
            </ul>
          </section>
          <New view={view} />
        </main>
      )}
    </Shown>
  );
}

function New({ view }: { view: Schemas["HoursView"] }) {
  const students = useDay().data?.students ?? [];
  const go = useNavigate();
  const id = useRef(ulid());
  const [chosen, choose] = useState<string[]>([]);
  const add = useMutation({
    mutationFn: (hour: Hour) => keepHour({ now: hour }),
    onSuccess: async (_, hour) => {
      id.current = ulid();
      await queries.invalidateQueries({ queryKey: ["hours"] });
      await go({ to: "/workbench/hours/$hour", params: { hour: hour.id } });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    add.mutate({
      id: id.current,
      name: String(form.get("name")),
      day: String(form.get("day")),
      start: String(form.get("start")),
      minutes: Number(form.get("minutes")),
      fresh: form.get("fresh") === "on",
      students: chosen,
      tunes: [],
      left: [],
      sitOut: false,
      marked: false,
    });
  };
  const toggle = (student: string) =>
    choose(chosen.includes(student) ? chosen.filter((s) => s !== student) : [...chosen, student]);
  return (
    <form
      onSubmit={submit}
      aria-label={say("hours.anotherHour")}
      className="grid gap-3 self-start rounded bg-raised p-4"
    >
      <h2>{say("hours.anotherHour")}</h2>
      <label>
        {say("hours.name")}
        <input name="name" required maxLength={100} className={field} placeholder={say("hours.wednesdayTogether")} />
      </label>
      <div className="grid grid-cols-3 gap-2">
        <label className="col-span-1">
          {say("hours.day")}
          <input name="day" type="date" required className={field} />
        </label>
        <label>
          {say("hours.at")}
          <input name="start" type="time" className={field} />
        </label>
        <label>
          {say("hours.minutes")}
          <input name="minutes" type="number" min={10} max={240} defaultValue={60} required className={field} />
        </label>
      </div>
      <fieldset>
        <legend className="mb-1">
          {say("hours.whoComes")}
          {chosen.length > 0 && <span className="text-soft">, {chosen.length}</span>}
        </legend>
        {view.groups.length > 0 && (
          <div className="mb-2 flex flex-wrap gap-1.5">
            {view.groups.map((g) => (
              <button
                key={g.why + g.of + g.students.join()}
                type="button"
                onClick={() => choose(g.students)}
                className="rounded border border-line px-2.5 py-1 hover:bg-faint"
              >
                {whys[g.why](g.of)}, {g.students.length}
              </button>
            ))}
          </div>
        )}
        {students.length === 0 && <p className="text-soft">{say("hours.takeStudentsFirstStudio")}</p>}
        <div className="grid grid-cols-2 gap-x-3">
          {students
            .filter((s) => s.state !== "left")
            .map((s) => (
              <label key={s.id} className="flex min-h-7 items-center gap-2">
                <input type="checkbox" checked={chosen.includes(s.id)} onChange={() => toggle(s.id)} />
                <span className="truncate">
                  {s.firstName} {s.familyName}
                </span>
              </label>
            ))}
        </div>
      </fieldset>
      <label className="flex items-center gap-2">
        <input type="checkbox" name="fresh" /> {say("hours.theyDoNotKnowEach")}
      </label>
      {add.error && <Trouble>{add.error.message}</Trouble>}
      <Button look="main" type="submit" disabled={add.isPending || chosen.length < 2}>
        {say("hours.planIt")}
      </Button>
    </form>
  );
}
