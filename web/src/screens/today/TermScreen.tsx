import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { termView } from "../../api/views";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown } from "../../parts/Told";
import { namedDay, plural, shortDay, strandNames } from "../../parts/words";
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

// say are the columns that are counts.
const say = {
  lessons: (b: Brought) => b.lessons,
  days: (b: Brought) => b.days,
  footholds: (b: Brought) => b.footholds.length,
  skills: (b: Brought) => b.skills.length,
};
const columns = [
  { of: "lessons", name: "Lessons" },
  { of: "days", name: "Days at home" },
  { of: "footholds", name: "Footholds" },
  { of: "skills", name: "New skills" },
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
        <h1 className="text-head first-letter:uppercase">{term ? `${term.name} at a glance` : "A term at a glance"}</h1>
        {term && (
          <p className="mr-auto text-soft">
            {namedDay(term.soFar.from)} to {namedDay(term.soFar.to)}
            {term.before && `; in grey ${term.before.name}, by the same day of it`}
          </p>
        )}
        {term && (
          <Link to="/studio/reports" search={{ from: term.from }} className="font-[620] underline underline-offset-4">
            Write the reports
          </Link>
        )}
        <PickTerm
          terms={view.terms}
          shown={view.shown}
          choose={(to) => go({ to: "/studio/term", search: (was) => ({ ...was, from: to }) })}
        />
      </div>
      {!term && <p className="rounded bg-raised p-4 text-soft">No term has begun yet.</p>}
      {term && view.students.length === 0 && (
        <p className="rounded bg-raised p-4 text-soft">What a term brings your students will stand here.</p>
      )}
      {chosen.length > 1 && <SideBySide chosen={chosen} />}
      {term && view.students.length > 0 && (
        <div className="overflow-x-auto rounded bg-raised px-4">
          <table className="w-full border-collapse">
            <thead>
              <tr className="text-left text-soft">
                <th className="w-8 py-2">
                  <span className="sr-only">Side by side</span>
                </th>
                <th className="py-2 font-normal">Student</th>
                {columns.map((c) => (
                  <th key={c.of} className="px-3 py-2 text-right font-normal whitespace-nowrap">
                    {c.name}
                  </th>
                ))}
                <th className="py-2 pl-5 font-normal">In hand</th>
              </tr>
            </thead>
            <tbody className="divide-y divide-faint">
              {view.students.map((s) => (
                <tr key={s.student.id}>
                  <td>
                    <input
                      type="checkbox"
                      className="size-5 align-middle"
                      aria-label={`${s.student.firstName} ${s.student.familyName} side by side with others`}
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
                      {say[c.of](s.now)}
                      {c.of === "days" && <span className="text-soft"> of {s.now.asked}</span>}
                      <span className="ml-2 inline-block w-14 text-small text-soft">
                        {s.before && `${say[c.of](s.before)}${c.of === "days" ? ` of ${s.before.asked}` : ""}`}
                      </span>
                    </td>
                  ))}
                  <td className="max-w-72 py-2 pl-5 text-soft">{s.on.join(", ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="border-t border-faint py-2">
            {Math.floor(view.minutes / 60)} hours {view.minutes % 60} minutes taught.{" "}
            {view.foretold > 0 &&
              `${view.kept} of ${plural(view.foretold, "foothold")} of all times came in the weeks foretold; eight in ten are meant to.`}
          </p>
          <p className="border-t border-faint py-2 text-soft">
            {chosen.length < 2
              ? "Choose two students to see them side by side. Each is held against the own term before, never against another."
              : `${plural(chosen.length, "student")} side by side above.`}
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
    <section aria-label="Books" className="mt-4 rounded bg-raised px-4 py-3">
      <h2>Books, and when they are used up</h2>
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
                : `${b.left} left${b.far ? ", more than two years" : b.by ? `, about until ${shortDay(b.by)} ${b.by.slice(0, 4)}` : ""}`}
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
      aria-label="Side by side"
      className="mb-4 grid gap-x-8 gap-y-4 rounded bg-raised p-4 sm:grid-flow-col sm:auto-cols-fr"
    >
      {chosen.map((s) => (
        <div key={s.student.id}>
          <h2 className="mb-1">
            {s.student.firstName} {s.student.familyName}
            <span className="ml-2 font-normal text-soft">
              {plural(s.now.lessons, "lesson")} · {s.now.days} of {plural(s.now.asked, "day")} at home
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
            {s.now.footholds.length === 0 && <li className="text-soft">No foothold yet.</li>}
          </ol>
          {s.now.skills.length > 0 && <p className="mt-2 text-soft">New: {s.now.skills.join(", ")}</p>}
          {s.on.length > 0 && <p className="mt-1 text-soft">In hand: {s.on.join(", ")}</p>}
        </div>
      ))}
    </section>
  );
}
