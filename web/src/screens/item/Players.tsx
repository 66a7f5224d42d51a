import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { namedDay } from "../../parts/words";

type PlayedBy = Schemas["PlayedBy"];

const states: Record<PlayedBy["state"], string> = {
  current: "plays it",
  ahead: "has it ahead",
  secure: "secure",
  parked: "parked",
};

// Players lists who plays this item, and who played it.
export function Players({ players }: { players: PlayedBy[] }) {
  return (
    <section aria-label="Who plays it" className="rounded bg-raised p-4 print:hidden">
      <h2 className="mb-1">Who plays it, who played it</h2>
      {players.length === 0 && <p className="text-soft">It is on nobody's ladder yet.</p>}
      <ul className="divide-y divide-faint">
        {players.map((p) => (
          <li key={p.rung} className="flex justify-between gap-3 py-1">
            <Link
              to="/students/$student/ladder"
              params={{ student: p.student }}
              className="font-[580] underline underline-offset-4"
            >
              {p.name}
            </Link>
            <span className="text-right text-soft">
              {p.polished ? "polished" : states[p.state]}
              {p.since && `, since ${namedDay(p.since)}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
