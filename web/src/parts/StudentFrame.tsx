import { Link, Outlet, useParams } from "@tanstack/react-router";
import { useDay } from "../api/views";
import { namedDay, timeOfDay } from "./words";

const places = [
  { to: "/students/$student/ladder", name: "Ladder" },
  { to: "/students/$student/lesson", name: "Lesson" },
  { to: "/students/$student/week", name: "Week sheet" },
  { to: "/students/$student/record", name: "Record" },
] as const;

// The StudentFrame names the student and the four places of one.
export function StudentFrame() {
  const { student } = useParams({ from: "/inside/students/$student" });
  const { data: day } = useDay();
  const card = day?.students.find((s) => s.id === student);
  const others = day?.students.filter((s) => s.person === card?.person && s.id !== student) ?? []; // on other instruments
  return (
    <div className="flex flex-1 flex-col print:block">
      <section aria-label="Student" className="screen-only flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2">
        <h1 className="text-head">{card ? `${card.firstName} ${card.familyName}` : "This student is not here"}</h1>
        {card && day && (
          <p className="text-soft">
            {card.age} · {card.plays} ·{" "}
            {card.next
              ? `${card.next === day.today ? "today" : namedDay(card.next)} ${timeOfDay(card.slot.start)}`
              : "no lesson ahead"}
            , {card.slot.minutes} min ·{" "}
            {others.map((o) => (
              <span key={o.id}>
                <Link
                  to="/students/$student/ladder"
                  params={{ student: o.id }}
                  className="underline underline-offset-4"
                >
                  also {o.plays}
                </Link>{" "}
                ·{" "}
              </span>
            ))}
            <Link to="/students/$student/settings" params={{ student }} className="underline underline-offset-4">
              Settings
            </Link>
          </p>
        )}
        {card && (
          <nav aria-label="Places of this student" className="ml-auto flex gap-1 font-[580]">
            {places.map((p) => (
              <Link
                key={p.to}
                to={p.to}
                params={{ student }}
                className="rounded-sm px-3.5 py-2"
                activeProps={{ className: "bg-ink text-raised", "aria-current": "page" }}
                inactiveProps={{ className: "hover:bg-faint" }}
              >
                {p.name}
              </Link>
            ))}
          </nav>
        )}
      </section>
      {card || !day ? (
        <Outlet />
      ) : (
        <main className="px-4">
          <p>Nobody of that address is in this studio; perhaps the student was deleted.</p>
        </main>
      )}
    </div>
  );
}
