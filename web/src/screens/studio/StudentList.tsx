import { Link } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { lessonTimes } from "../../parts/StudentFields";
import { namedDay, weekOrder } from "../../parts/words";
import { say } from "../../words/say";

type Card = Schemas["StudentCard"];

const orders = {
  day: (a: Card, b: Card) =>
    weekOrder.indexOf(a.slot.weekday) - weekOrder.indexOf(b.slot.weekday) || a.slot.start.localeCompare(b.slot.start),
  name: (a: Card, b: Card) => a.firstName.localeCompare(b.firstName) || a.familyName.localeCompare(b.familyName),
  age: (a: Card, b: Card) => a.age - b.age,
  instrument: (a: Card, b: Card) => a.plays.localeCompare(b.plays) || a.firstName.localeCompare(b.firstName),
};
type Order = keyof typeof orders;

const orderNames: Record<Order, string> = {
  day: say("studio.byDay"),
  name: say("studio.byName"),
  age: say("studio.byAge"),
  instrument: say("studio.byInstrument"),
};

const states = { here: "", paused: say("studio.paused"), left: say("studio.left") } as const;

// StudentList lists the studio's students, by what is asked; those who pause or have left
// after the others.
export function StudentList({ students }: { students: Card[] }) {
  const [order, setOrder] = useState<Order>("day");
  if (students.length === 0)
    return <p className="rounded bg-raised px-4 py-4 text-soft">{say("studio.noStudentsYetPutFirst")}</p>;
  return (
    <div className="rounded bg-raised px-4">
      <fieldset className="flex flex-wrap items-center gap-1 border-b border-faint py-1.5">
        <legend className="sr-only">{say("studio.whatOrder")}</legend>
        <span className="mr-auto text-soft">{say("studio.studentsBy", { students: students.length })}</span>
        {(Object.keys(orders) as Order[]).map((o) => (
          <button
            key={o}
            type="button"
            aria-pressed={order === o}
            onClick={() => setOrder(o)}
            className={`rounded-sm px-2.5 py-1 ${order === o ? "bg-faint font-[620]" : "hover:bg-faint"}`}
          >
            {orderNames[o]}
          </button>
        ))}
      </fieldset>
      {(Object.keys(states) as (keyof typeof states)[]).map((state) => {
        const list = students.filter((s) => s.state === state).sort(orders[order]);
        if (list.length === 0) return null;
        return (
          <section key={state} aria-label={states[state] || say("studio.here")}>
            {states[state] && <h2 className="border-t border-line pt-2 text-soft">{states[state]}</h2>}
            <ul className="divide-y divide-faint">
              {list.map((s) => (
                <li key={s.id}>
                  <Link
                    to="/students/$student/ladder"
                    params={{ student: s.id }}
                    className="grid grid-cols-[1fr_auto] gap-x-4 sm:grid-cols-[1fr_auto_11rem] py-2.5 hover:bg-faint"
                  >
                    <b className="font-[620]">
                      {s.firstName} {s.familyName}
                    </b>
                    <span className="text-soft">
                      {s.age} · {s.plays}
                    </span>
                    <span className="text-soft sm:text-right">
                      {state === "here" && say("studio.min2", { times: lessonTimes(s.slot), minutes: s.slot.minutes })}
                      {state === "paused" &&
                        (s.until ? say("studio.until", { day: namedDay(s.until) }) : say("studio.untilFurtherNotice"))}
                    </span>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}
