import { Link } from "@tanstack/react-router";
import type { Schemas } from "../../api/client";
import { namedDay } from "../../parts/words";
import { say } from "../../words/say";

type PlayedBy = Schemas["PlayedBy"];

const states: Record<PlayedBy["state"], string> = {
  current: say("item.playsIt"),
  ahead: say("item.hasAhead"),
  secure: say("item.learnt"),
  parked: say("item.onHold"),
};

// Players lists who plays this item, and who played it.
export function Players({ players }: { players: PlayedBy[] }) {
  return (
    <section aria-label={say("item.whoPlays")} className="rounded bg-raised p-4 print:hidden">
      <h2 className="mb-1">{say("item.whoPlaysWhoPlayed")}</h2>
      {players.length === 0 && <p className="text-soft">{say("item.nobodysLadderYet")}</p>}
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
              {p.polished ? say("item.performanceReady") : states[p.state]}
              {p.since && say("item.since", { day: namedDay(p.since) })}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
