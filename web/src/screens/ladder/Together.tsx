import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { duetsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown } from "../../parts/Told";

const hows: Record<Schemas["Partner"]["how"], (p: Schemas["Partner"]) => string> = {
  lead: (p) => `${p.name} has it secure and leads; here the second, the first note of each bar.`,
  halves: (p) => `With ${p.name} as a duet: half and half, then swapped.`,
  beside: (p) => `With ${p.name}'s “${p.title}”: the same key and meter, the ear decides.`,
};

// Together shows who of the studio could play with the pieces in hand.
export function Together({ student }: { student: string }) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label="With others" className="mt-4">
      {!open && <Button onClick={() => setOpen(true)}>Who could play with these?</Button>}
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
          <h2>With others</h2>
          {duets.length === 0 && (
            <p className="text-soft">Nobody has one of these pieces, or one of the same key and meter, fresh enough.</p>
          )}
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
                {d.with.length > 4 && <p className="pl-5 text-soft">and {d.with.length - 4} more</p>}
              </li>
            ))}
          </ul>
        </div>
      )}
    </Shown>
  );
}
