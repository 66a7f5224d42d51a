import { Link, Outlet, useParams } from "@tanstack/react-router";
import { useDay } from "../api/views";
import { say } from "../words/say";
import { namedDay, timeOfDay } from "./words";

const places = [
  { to: "/students/$student/ladder", name: say("parts.ladder") },
  { to: "/students/$student/lesson", name: say("parts.lesson") },
  { to: "/students/$student/week", name: say("parts.practiceSheet") },
  { to: "/students/$student/record", name: say("parts.progress") },
] as const;

// The StudentFrame names the student and the four places of one.
export function StudentFrame() {
  const { student } = useParams({ from: "/inside/students/$student" });
  const { data: day } = useDay();
  const card = day?.students.find((s) => s.id === student);
  const others = day?.students.filter((s) => s.person === card?.person && s.id !== student) ?? []; // on other instruments
  return (
    <div className="flex flex-1 flex-col print:block">
      <section
        aria-label={say("parts.student")}
        className="screen-only flex flex-wrap items-center gap-x-4 gap-y-1 px-4 py-2"
      >
        <h1 className="text-head">{card ? `${card.firstName} ${card.familyName}` : say("parts.studentNotHere")}</h1>
        {card && day && (
          <p className="text-soft">
            {card.age} · {card.plays} ·{" "}
            {card.next
              ? `${card.next === day.today ? say("parts.todayAt") : namedDay(card.next)} ${timeOfDay(card.slot.start)}`
              : say("parts.noLessonAhead")}
            {say("parts.min", { minutes: card.slot.minutes })}{" "}
            {others.map((o) => (
              <span key={o.id}>
                <Link
                  to="/students/$student/ladder"
                  params={{ student: o.id }}
                  className="underline underline-offset-4"
                >
                  {say("parts.also2", { plays: o.plays })}
                </Link>{" "}
                ·{" "}
              </span>
            ))}
            <Link to="/students/$student/settings" params={{ student }} className="underline underline-offset-4">
              {say("parts.settings")}
            </Link>
          </p>
        )}
        {card && (
          <nav aria-label={say("parts.placesStudent")} className="ml-auto flex flex-wrap gap-1 font-[580]">
            {places.map((p) => (
              <Link
                key={p.to}
                to={p.to}
                params={{ student }}
                className="rounded-sm px-3.5 py-2 max-sm:px-2.5"
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
          <p>{say("parts.nobodyAddressStudioPerhapsStudent")}</p>
        </main>
      )}
    </div>
  );
}
