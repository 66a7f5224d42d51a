import { Link } from "@tanstack/react-router";
import { say } from "../words/say";

const places = [
  { to: "/workbench", name: say("parts.seating") },
  { to: "/workbench/exercises", name: say("parts.scalesPatterns") },
  { to: "/workbench/listen", name: say("parts.earRhythmTraining") },
  { to: "/workbench/hours", name: say("parts.groupLessons") },
] as const;

// WorkbenchPlaces are what is done at the Workbench, for a student or for anybody.
export function WorkbenchPlaces({ student }: { student?: string }) {
  return (
    <nav aria-label={say("parts.placesWorkbench")} className="screen-only flex flex-wrap gap-1 font-[580] print:hidden">
      {places.map((p) => (
        <Link
          key={p.to}
          to={p.to}
          search={p.to === "/workbench/hours" ? {} : { student }}
          activeOptions={{ exact: true, includeSearch: false }}
          className="rounded-sm px-3.5 py-2"
          activeProps={{ className: "bg-ink text-raised", "aria-current": "page" }}
          inactiveProps={{ className: "hover:bg-faint" }}
        >
          {p.name}
        </Link>
      ))}
    </nav>
  );
}
