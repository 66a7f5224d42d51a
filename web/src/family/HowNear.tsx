import type { Schemas } from "../api/client";
import { say } from "../words/say";

type Near = Schemas["NearView"];

// HowNear says of each piece in hand what it is worked for and what is ticked of it.
export function HowNear({ pieces }: { pieces: Near[] }) {
  if (pieces.length === 0) return null;
  return (
    <section className="px-4 pt-6" aria-label={say("family.howNearEachPiece")}>
      <h3>{say("family.howNearEachPiece")}</h3>
      <ul className="mt-1 space-y-3">
        {pieces.map((p) => (
          <li key={p.rung} className="rounded border border-line bg-raised p-3">
            <p className="flex items-baseline justify-between gap-3">
              <b className="font-[650]">{p.title}</b>
            </p>
            <ul className="mt-1">
              {p.points.map((pt) => (
                <li key={pt.name} className="flex gap-2">
                  <span aria-hidden="true" className="w-5 text-center font-[650]">
                    {pt.met ? "✓" : "○"}
                  </span>
                  {pt.name}
                  {pt.met && <span className="sr-only">{say("family.goes")}</span>}
                </li>
              ))}
              {p.spots.map((s) => (
                <li key={s.id} className="flex gap-2 text-body">
                  <span aria-hidden="true" className="w-5 text-center font-[650]">
                    {s.done >= s.goal ? "✓" : "·"}
                  </span>
                  {say("family.ofInARow", { where: s.where, min: Math.min(s.done, s.goal), goal: s.goal })}
                </li>
              ))}
            </ul>
            {p.ready && <p className="mt-1 font-[620]">{say("family.everyPointGoesMayTried")}</p>}
            {p.next && <p className="mt-1 text-body text-soft">{say("family.afterComes", { next: p.next })}</p>}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-body text-soft">{say("family.doneMeansGoesThroughAlone")}</p>
    </section>
  );
}
