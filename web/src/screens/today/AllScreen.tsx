import { useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { Fragment } from "react";
import type { Schemas } from "../../api/client";
import { overviewView } from "../../api/views";
import { Needs } from "../../parts/Needs";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown } from "../../parts/Told";
import { namedDay, shortDay } from "../../parts/words";
import { say } from "../../words/say";
import { Bring } from "./TodayScreen";

// AllScreen looks over all students: what each needs, and what to order or print for the next
// week.
export function AllScreen() {
  const query = useQuery(overviewView);
  return <Shown query={query}>{(view) => <All view={view} />}</Shown>;
}

function All({ view }: { view: Schemas["OverviewView"] }) {
  const needing = view.students.filter((s) => s.needs.length > 0);
  const calm = view.students.filter((s) => s.needs.length === 0);
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <h1 className="my-3 text-head">{say("today.allStudents")}</h1>
      <div className="grid items-start gap-5 xl:grid-cols-[1fr_360px]">
        <section aria-label={say("today.toSeeTo")} className="rounded bg-raised px-4">
          <ol className="divide-y divide-faint">
            {needing.map((s) => (
              <li key={s.student.id} className="grid gap-x-4 py-2 sm:grid-cols-[12rem_1fr]">
                <div>
                  <Link
                    to="/students/$student/ladder"
                    params={{ student: s.student.id }}
                    className="font-[650] underline-offset-4 hover:underline"
                  >
                    {s.student.firstName} {s.student.familyName}
                  </Link>
                  <p className="text-soft">
                    {s.student.age} · {s.student.plays}
                    {s.student.next && ` · ${namedDay(s.student.next)}`}
                    {s.student.state === "paused" && ` · ${say("today.paused")}`}
                  </p>
                </div>
                <Needs student={s.student.id} needs={s.needs} />
              </li>
            ))}
            {needing.length === 0 && (
              <li className="py-3 text-soft">
                {view.students.length === 0 ? say("today.noStudentsYet") : say("today.nothingPressesEverybodyWay")}
              </li>
            )}
          </ol>
          {calm.length > 0 && needing.length > 0 && (
            <p className="border-t border-faint py-2 text-soft">
              {say("today.nothingPressesWith", { list: calm.map((s) => s.student.firstName).join(", ") })}
            </p>
          )}
        </section>
        <div className="space-y-4">
          <section aria-label={say("today.orderPrint")} className="rounded bg-raised p-4">
            <h2 className="mb-1">{say("today.orderPrintNextSevenDays")}</h2>
            <ul className="divide-y divide-faint">
              {view.wanted.map((w) => (
                <li key={w.student + w.says} className="flex gap-3 py-1.5">
                  <span className="w-20 shrink-0 text-soft">{namedDay(w.day)}</span>
                  <span className="flex-1">
                    <b className="font-[620]">{w.name}:</b> <Bring bring={w} />
                  </span>
                </li>
              ))}
            </ul>
            {view.wanted.length === 0 && <p className="text-soft">{say("today.nothingNewBegins")}</p>}
            {view.wanted.length > 0 && (
              <p className="mt-2 text-soft">{say("today.thingsAll", { wanted: view.wanted.length })}</p>
            )}
          </section>
          <Rounds view={view} />
        </div>
      </div>
    </main>
  );
}

const rounds = [
  { code: "sheet-not-sent", title: say("today.sheetsHaveNotGoneOut"), place: "week" },
  { code: "sheet-not-opened", title: say("today.sheetsNobodyOpened"), place: "week" },
  { code: "talk-due", title: say("today.checkInsAreDue"), place: "record" },
  { code: "measure", title: say("today.toMeasure"), place: "seat" },
] as const;

// Rounds are what is seen to for several students in one go.
function Rounds({ view }: { view: Schemas["OverviewView"] }) {
  return rounds.map(({ code, title, place }) => {
    const list = view.rounds.filter((r) => r.why.code.startsWith(code));
    if (list.length === 0) return null;
    return (
      <section key={code} aria-label={title} className="rounded bg-raised p-4">
        <h2 className="mb-1">
          {title} <span className="font-normal text-soft">({list.length})</span>
        </h2>
        <p className="leading-7">
          {list.map((r, i) => (
            <Fragment key={r.student}>
              {i > 0 && ", "}
              {place !== "seat" ? (
                <Link
                  to={`/students/$student/${place}`}
                  params={{ student: r.student }}
                  className="underline underline-offset-4"
                >
                  {r.name}
                </Link>
              ) : (
                <Link to="/workbench" search={{ student: r.student }} className="underline underline-offset-4">
                  {r.name}
                </Link>
              )}
              {r.why.args.day && ` ${shortDay(r.why.args.day)}`}
            </Fragment>
          ))}
        </p>
      </section>
    );
  });
}
