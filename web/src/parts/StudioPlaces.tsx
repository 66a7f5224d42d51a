import { Link } from "@tanstack/react-router";

const places = [
  { to: "/studio/today", name: "Today" },
  { to: "/studio/students", name: "All students" },
  { to: "/studio/term", name: "Term" },
  { to: "/studio", name: "Studio" },
  { to: "/calendar", name: "Calendar" },
  { to: "/studio/account", name: "Account" },
] as const;

// StudioPlaces are the places that look at all students at once.
export function StudioPlaces() {
  return (
    <nav aria-label="Places of the studio" className="screen-only flex flex-wrap gap-1 font-[580]">
      {places.map((p) => (
        <Link
          key={p.to}
          to={p.to}
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
