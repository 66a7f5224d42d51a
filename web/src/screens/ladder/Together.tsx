import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { duetsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";

const hows: Record<Schemas["Partner"]["how"], (p: Schemas["Partner"]) => string> = {
  lead: (p) => say("ladder.leads", { name: p.name }),
  halves: (p) => say("ladder.withDuetHalfHalfThen", { name: p.name }),
  beside: (p) => say("ladder.withSSameKeyMeter", { name: p.name, title: p.title }),
};

// Together shows who of the studio could play with the pieces in hand.
export function Together({ student }: { student: string }) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label={say("ladder.withOthers")} className="mt-4">
      {!open && <Button onClick={() => setOpen(true)}>{say("ladder.whoCouldPlayWithThese")}</Button>}
      {open && <Duets student={student} />}
    </section>
  );
}

function Duets({ student }: { student: string }) {
  const query = useQuery(duetsView(student));
  return (
    <Shown query={query}>
      {(duets) => (
        <div className="rounded bg-raised px-4 py-3">
          <h2>{say("ladder.withOthers")}</h2>
          {duets.length === 0 && <p className="text-soft">{say("ladder.nobodyHasOneThesePieces")}</p>}
          <ul className="mt-1 grid gap-1.5">
            {duets.map((d) => (
              <li key={d.rung}>
                <b className="font-[620]">{d.title}</b>
                {d.key && <span className="text-soft">, {d.key}</span>}
                <ul className="list-disc pl-5">
                  {d.with.slice(0, 4).map((p) => (
                    <li key={p.student + p.rung}>{hows[p.how](p)}</li>
                  ))}
                </ul>
                {d.with.length > 4 && (
                  <p className="pl-5 text-soft">{say("ladder.andMore", { n: d.with.length - 4 })}</p>
                )}
              </li>
            ))}
          </ul>
        </div>
      )}
    </Shown>
  );
}
