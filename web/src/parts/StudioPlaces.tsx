import { Link } from "@tanstack/react-router";
import { say } from "../words/say";
import { ofStudio } from "./places";

const places = [
  "/studio/today",
  "/studio/students",
  "/studio/term",
  "/studio/reports",
  "/studio/dates",
  "/studio",
  "/calendar",
  "/studio/account",
] as const;

// StudioPlaces are the places that look at all students at once.
export function StudioPlaces() {
  return (
    <nav aria-label={say("parts.placesStudio")} className="screen-only flex flex-wrap gap-1 font-[580]">
      {places.map((to) => (
        <Link
          key={to}
          to={to}
          activeOptions={{ exact: true, includeSearch: false }}
          className="rounded-sm px-3.5 py-2"
          activeProps={{ className: "bg-ink text-raised", "aria-current": "page" }}
          inactiveProps={{ className: "hover:bg-faint" }}
        >
          {ofStudio.find((p) => p.to === to)?.name}
        </Link>
      ))}
    </nav>
  );
}
