import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { termView } from "../../api/views";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown } from "../../parts/Told";
import { namedDay, shortDay, strandNames } from "../../parts/words";
import { say } from "../../words/say";
import { PickTerm } from "../record/PickTerm";

type One = Schemas["StudentTerm"];
type Brought = Schemas["Brought"];

const where = "/inside/studio/term";

// TermScreen shows what a term has brought each student, beside the term before, and any two
// or more of them side by side.
export function TermScreen() {
  const { from } = useSearch({ from: where });
  return <Shown query={useQuery(termView(from))}>{(view) => <Term view={view} />}</Shown>;
}

// column are the columns that are counts.
const column = {
  lessons: (b: Brought) => b.lessons,
  days: (b: Brought) => b.days,
  footholds: (b: Brought) => b.footholds.length,
  skills: (b: Brought) => b.skills.length,
};
const columns = [
  { of: "lessons", name: say("today.lessons") },
  { of: "days", name: say("today.daysHome") },
  { of: "footholds", name: say("today.learnt") },
  { of: "skills", name: say("today.newSkills") },
] as const;

function Term({ view }: { view: Schemas["TermView"] }) {
  const { beside = [] } = useSearch({ from: where });
  const go = useNavigate();
  const term = view.terms[view.shown];
  const chosen = view.students.filter((s) => beside.includes(s.student.id));
  const choose = (id: string, on: boolean) =>
    go({
      to: "/studio/term",
      search: (was) => ({ ...was, beside: on ? [...beside, id] : beside.filter((x) => x !== id) }),
      replace: true,
    });
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <div className="my-3 flex flex-wrap items-baseline gap-x-3">
        <h1 className="text-head first-letter:uppercase">
          {term ? say("today.atAGlance", { name: term.name }) : say("today.termGlance")}
        </h1>
        {term && (
          <p className="mr-auto text-soft">
            {say("today.to", { day: namedDay(term.soFar.from), day2: namedDay(term.soFar.to) })}
            {term.before && say("today.inGrey", { term: term.before.name })}
          </p>
        )}
        {term && (
          <Link to="/studio/reports" search={{ from: term.from }} className="font-[620] underline underline-offset-4">
            {say("today.writeReports")}
          </Link>
        )}
        <PickTerm
          terms={view.terms}
          shown={view.shown}
          choose={(to) => go({ to: "/studio/term", search: (was) => ({ ...was, from: to }) })}
        />
      </div>
      {!term && <p className="rounded bg-raised p-4 text-soft">{say("today.noTermHasBegunYet")}</p>}
      {term && view.students.length === 0 && (
        <p className="rounded bg-raised p-4 text-soft">{say("today.whatTermBringsStudentsWill")}</p>
      )}
      {chosen.length > 1 && <SideBySide chosen={chosen} />}
      {term && view.students.length > 0 && (
        <div className="overflow-x-auto rounded bg-raised px-4">
          <table className="w-full border-collapse">
            <thead>
              <tr className="text-left text-soft">
                <th className="w-8 py-2">
                  <span className="sr-only">{say("today.sideSide")}</span>
                </th>
                <th className="py-2 font-normal">{say("today.student")}</th>
                {columns.map((c) => (
                  <th key={c.of} className="px-3 py-2 text-right font-normal whitespace-nowrap">
                    {c.name}
                  </th>
                ))}
                <th className="py-2 pl-5 font-normal">{say("today.inHand")}</th>
              </tr>
            </thead>
            <tbody className="divide-y divide-faint">
              {view.students.map((s) => (
                <tr key={s.student.id}>
                  <td>
                    <input
                      type="checkbox"
                      className="size-5 align-middle"
                      aria-label={say("today.sideSideWithOthers", {
                        firstName: s.student.firstName,
                        familyName: s.student.familyName,
                      })}
                      checked={beside.includes(s.student.id)}
                      onChange={(e) => choose(s.student.id, e.target.checked)}
                    />
                  </td>
                  <th className="py-2 text-left font-normal whitespace-nowrap">
                    <Link
                      to="/students/$student/record"
                      params={{ student: s.student.id }}
                      className="font-[650] underline-offset-4 hover:underline"
                    >
                      {s.student.firstName} {s.student.familyName}
                    </Link>
                    <span className="ml-2 text-soft">
                      {s.student.age} · {s.student.plays}
                    </span>
                  </th>
                  {columns.map((c) => (
                    <td key={c.of} className="px-3 py-2 text-right whitespace-nowrap tabular-nums">
                      {column[c.of](s.now)}
                      {c.of === "days" && <span className="text-soft">{say("today.of", { asked: s.now.asked })}</span>}
                      <span className="ml-2 inline-block w-14 text-small text-soft">
                        {s.before &&
                          `${column[c.of](s.before)}${c.of === "days" ? say("today.of", { asked: s.before.asked }) : ""}`}
                      </span>
                    </td>
                  ))}
                  <td className="max-w-72 py-2 pl-5 text-soft">{s.on.join(", ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="border-t border-faint py-2">
            {say("today.hours", { hours: Math.floor(view.minutes / 60) })} {view.minutes % 60}{" "}
            {say("today.minutesTaught")}{" "}
            {view.foretold > 0 && say("today.expectedWeeks", { n: view.foretold, kept: view.kept })}
          </p>
          <p className="border-t border-faint py-2 text-soft">
            {chosen.length < 2
              ? say("today.chooseTwoStudentsSeeThem")
              : say("today.studentsSideSideAbove", { chosen: chosen.length })}
          </p>
        </div>
      )}
      {term && <Books books={view.books} />}
    </main>
  );
}

// Books tells which books are used up, and when the others will be.
function Books({ books }: { books: Schemas["TermView"]["books"] }) {
  const soon = books.filter((b) => b.left === 0 || b.by);
  if (soon.length === 0) return null;
  return (
    <section aria-label={say("today.books")} className="mt-4 rounded bg-raised px-4 py-3">
      <h2>{say("today.booksWhenTheyAreUsed")}</h2>
      <ul className="mt-1 gap-x-8 sm:columns-2">
        {soon.map((b) => (
          <li key={b.student + b.book} className="flex gap-3 break-inside-avoid py-0.5">
            <Link
              to="/students/$student/ladder"
              params={{ student: b.student }}
              className="inline-block min-h-7 w-24 shrink-0 font-[620] underline-offset-4 hover:underline"
            >
              {b.name}
            </Link>
            <span className="flex-1">{b.book}</span>
            <span className={b.left === 0 ? "text-now" : "text-soft"}>
              {b.left === 0
                ? "finished"
                : say("today.left", {
                    left: b.left,
                    value: b.far
                      ? say("today.moreThanTwoYears")
                      : b.by
                        ? say("today.aboutUntil", { day: shortDay(b.by), detail: b.by.slice(0, 4) })
                        : "",
                  })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

// SideBySide shows what a term brought some students, by name rather than by number.
function SideBySide({ chosen }: { chosen: One[] }) {
  return (
    <section
      aria-label={say("today.sideSide")}
      className="mb-4 grid gap-x-8 gap-y-4 rounded bg-raised p-4 sm:grid-flow-col sm:auto-cols-fr"
    >
      {chosen.map((s) => (
        <div key={s.student.id}>
          <h2 className="mb-1">
            {s.student.firstName} {s.student.familyName}
            <span className="ml-2 font-normal text-soft">
              {say("today.lessonsDaysHome", { lessons: s.now.lessons, days: s.now.days, asked: s.now.asked })}
            </span>
          </h2>
          <ol>
            {s.now.footholds.map((w) => (
              <li key={w.at + w.title + w.part} className="flex gap-3 py-0.5">
                <span className="w-16 shrink-0 text-soft">{shortDay(w.at)}</span>
                <span>
                  {w.title}
                  {w.part && `, ${w.part}`}
                  {w.strand !== "book" && <span className="text-soft"> · {strandNames[w.strand]?.toLowerCase()}</span>}
                </span>
              </li>
            ))}
            {s.now.footholds.length === 0 && <li className="text-soft">{say("today.nothingLearntYet")}</li>}
          </ol>
          {s.now.skills.length > 0 && (
            <p className="mt-2 text-soft">{say("today.new", { list: s.now.skills.join(", ") })}</p>
          )}
          {s.on.length > 0 && <p className="mt-1 text-soft">{say("today.inHand2", { list: s.on.join(", ") })}</p>}
        </div>
      ))}
    </section>
  );
}
