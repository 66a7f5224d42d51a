import { type FormEvent, useState } from "react";
import { tell } from "../api/outbox";
import { plural } from "../parts/dates";
import { HomeDays } from "../parts/HomeDays";
import type { FamilyView } from "./view";

type Props = { view: FamilyView; token: string };

// Ours is what the family settles for itself: its days, its minutes, and, where that
// is offered, something to count towards.
export function Ours({ view, token }: Props) {
  return (
    <section className="space-y-4 px-4 pt-8">
      {!view.own && (
        <>
          <h2 className="text-head">Our week</h2>
          <HomeDays student={view.student} days={view.weekdays} minutes={view.budget} />
        </>
      )}
      {view.treats && <Treat view={view} />}
      <p>
        <a className="font-[620] underline underline-offset-4" href={`/api/family/${token}/lessons.ics`}>
          {view.own ? "Your" : `${view.firstName}'s`} lessons as a calendar file
        </a>
      </p>
    </section>
  );
}

const counted = { days: "days practised", footholds: "pieces that are done (a long one counts for more)" };

function Treat({ view }: { view: FamilyView }) {
  const [counts, setCounts] = useState<"days" | "footholds">("days");
  const treat = view.treat;
  if (treat) {
    return (
      <div>
        <h3 className="font-[620]">{treat.name}</h3>
        <p>
          {treat.done >= treat.goal
            ? `Reached: ${plural(treat.done, treat.counts === "days" ? "day" : "piece")}.`
            : `${treat.done} of ${treat.goal} ${counted[treat.counts]} so far.`}
        </p>
        <button
          type="button"
          className="min-h-11 font-[620] underline underline-offset-4"
          onClick={() => tell(view.student, { kind: "treat_dropped" })}
        >
          {treat.done >= treat.goal ? "Choose another" : "Stop counting"}
        </button>
      </div>
    );
  }
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const name = String(form.get("treat")).trim();
    if (name) tell(view.student, { kind: "treat_set", name, counts, goal: Number(form.get("goal")) });
  };
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-[620]">Count towards something, if you like</summary>
      <form className="space-y-2" onSubmit={submit}>
        <input
          name="treat"
          aria-label="What we count towards"
          placeholder="An afternoon at the harbour"
          maxLength={100}
          className="min-h-11 w-full rounded border border-line bg-raised px-3"
        />
        <div className="flex gap-2">
          <select
            name="goal"
            aria-label="How many"
            defaultValue="10"
            className="min-h-11 rounded border border-line bg-raised px-3"
          >
            {[3, 5, 10, 15, 20, 30].map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
          <select
            aria-label="Of what"
            className="min-h-11 min-w-0 flex-1 rounded border border-line bg-raised px-3"
            value={counts}
            onChange={(e) => setCounts(e.target.value === "footholds" ? "footholds" : "days")}
          >
            <option value="days">{counted.days}</option>
            <option value="footholds">{counted.footholds}</option>
          </select>
        </div>
        <button type="submit" className="min-h-11 rounded border border-ink px-4 font-[620]">
          Begin counting
        </button>
        <p className="text-body text-soft">You choose the treat, we only count. Nobody is compared with anybody.</p>
      </form>
    </details>
  );
}
