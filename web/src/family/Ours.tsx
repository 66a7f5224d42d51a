import { type FormEvent, useState } from "react";
import { tell } from "../api/outbox";
import { HomeDays } from "../parts/HomeDays";
import { say } from "../words/say";
import type { FamilyView } from "./view";

type Props = { view: FamilyView; token: string };

// Ours is what the family settles for itself: its days, its minutes, and, where that
// is offered, something to count towards.
export function Ours({ view, token }: Props) {
  return (
    <section className="space-y-4 px-4 pt-8">
      {!view.own && (
        <>
          <h2 className="text-head">{say("family.ourWeek")}</h2>
          <HomeDays student={view.student} days={view.weekdays} minutes={view.budget} />
        </>
      )}
      {view.treats && <Treat view={view} />}
      <p>
        <a className="font-[620] underline underline-offset-4" href={`/api/family/${token}/lessons.ics`}>
          {view.own ? say("family.your") : `${view.firstName}'s`} {say("family.lessonsCalendarFile")}
        </a>
      </p>
    </section>
  );
}

const counted = { days: say("family.daysPractised"), footholds: say("family.piecesAreDoneLongOne") };

function Treat({ view }: { view: FamilyView }) {
  const [counts, setCounts] = useState<"days" | "footholds">("days");
  const treat = view.treat;
  if (treat) {
    return (
      <div>
        <h3 className="font-[620]">{treat.name}</h3>
        <p>
          {treat.done >= treat.goal
            ? say("family.reached", {
                thing:
                  treat.counts === "days" ? say("count.day", { n: treat.done }) : say("count.piece", { n: treat.done }),
              })
            : say("family.soFar", { done: treat.done, goal: treat.goal, counted: counted[treat.counts] })}
        </p>
        <button
          type="button"
          className="min-h-11 font-[620] underline underline-offset-4"
          onClick={() => tell(view.student, { kind: "treat_dropped" })}
        >
          {treat.done >= treat.goal ? say("family.chooseAnother") : say("family.stopCounting")}
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
      <summary className="min-h-11 cursor-pointer py-2 font-[620]">{say("family.countTowardsSomethingIfLike")}</summary>
      <form className="space-y-2" onSubmit={submit}>
        <input
          name="treat"
          aria-label={say("family.whatWeCountTowards")}
          placeholder={say("family.afternoonHarbour")}
          maxLength={100}
          className="min-h-11 w-full rounded border border-line bg-raised px-3"
        />
        <div className="flex gap-2">
          <select
            name="goal"
            aria-label={say("family.howMany")}
            defaultValue="10"
            className="min-h-11 rounded border border-line bg-raised px-3"
          >
            {[3, 5, 10, 15, 20, 30].map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
          <select
            aria-label={say("family.ofWhat")}
            className="min-h-11 min-w-0 flex-1 rounded border border-line bg-raised px-3"
            value={counts}
            onChange={(e) => setCounts(e.target.value === "footholds" ? "footholds" : "days")}
          >
            <option value="days">{counted.days}</option>
            <option value="footholds">{counted.footholds}</option>
          </select>
        </div>
        <button type="submit" className="min-h-11 rounded border border-ink px-4 font-[620]">
          {say("family.beginCounting")}
        </button>
        <p className="text-body text-soft">{say("family.chooseTreatWeOnlyCount")}</p>
      </form>
    </details>
  );
}
