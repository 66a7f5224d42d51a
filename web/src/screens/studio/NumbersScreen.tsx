import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { forecastsView, skillsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { families } from "../../parts/instruments";
import { Shown, Trouble } from "../../parts/Told";
import { plural, span } from "../../parts/words";
import { OwnSkill } from "./OwnSkill";

// NumbersScreen shows what every plan rests on: the skills with their weights
// and chains, and the numbers that are ours.
export function NumbersScreen() {
  const query = useQuery(skillsView);
  const [edited, edit] = useState<Schemas["Skill"] | "new">();
  return (
    <Shown query={query}>
      {({ skills, own, numbers }) => (
        <main className="grid flex-1 content-start gap-6 px-4 py-3 lg:grid-cols-2">
          <section aria-label="Skills">
            <h1 className="text-head">What plans rest on</h1>
            <p className="mb-3 text-soft">
              {plural(skills.length, "skill")}, each with its weight when new, what it rests on, and the small tasks
              that prepare it. Weights and tasks are our judgement.
            </p>
            {edited ? (
              <OwnSkill
                key={edited === "new" ? "" : edited.id}
                all={skills}
                skill={edited === "new" ? undefined : edited}
                done={() => edit(undefined)}
              />
            ) : (
              <p className="mb-3">
                <Button onClick={() => edit("new")}>Add a skill</Button>
              </p>
            )}
            {Object.entries(Object.groupBy(skills, (s) => s.family)).map(([family, list = []]) => (
              <details key={family} className="mb-2 rounded bg-raised px-4 py-2">
                <summary className="cursor-pointer font-[620]">
                  {families[family]}: {list.length}
                </summary>
                <ul className="divide-y divide-faint">
                  {list.map((s) => (
                    <Skill key={s.id} skill={s} all={skills} edit={own.includes(s.id) ? () => edit(s) : undefined} />
                  ))}
                </ul>
              </details>
            ))}
          </section>
          <section aria-label="Numbers">
            <h2 className="text-head">Numbers that are ours</h2>
            <Forecasts />
            <p className="mb-3 text-soft">Not published anywhere: judgements, and what moves if one changes.</p>
            {Object.entries(Object.groupBy(numbers, (n) => n.about)).map(([about, own = []]) => (
              <section key={about} aria-label={about} className="mb-3 rounded bg-raised px-4 py-2">
                <h3>{about}</h3>
                <ul className="divide-y divide-faint">
                  {own.map((n) => (
                    <li key={n.name} className="flex gap-3 py-1.5">
                      <b className="w-12 shrink-0 text-right font-[620]">{n.value}</b>
                      <span>
                        {n.name}
                        <span className="block text-soft">{n.moves}</span>
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </section>
        </main>
      )}
    </Shown>
  );
}

type SkillProps = { skill: Schemas["Skill"]; all: Schemas["Skill"][]; edit?: () => void };

function Skill({ skill, all, edit }: SkillProps) {
  const drop = useMutation({
    mutationFn: () => answer(api.DELETE("/api/skills/{skill}", { params: { path: { skill: skill.id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["skills"] }),
  });
  const name = (id: string) => all.find((s) => s.id === id)?.name ?? id;
  return (
    <li className="py-1.5">
      <div className="flex justify-between gap-3">
        <b className="font-[620]">{skill.name}</b>
        <span className="shrink-0 text-soft">
          {skill.area} · {skill.weight}
        </span>
      </div>
      {edit && (
        <p className="flex items-center gap-2">
          <span className="text-soft">yours</span>
          <Button look="quiet" onClick={edit}>
            Edit
          </Button>
          <Button look="quiet" disabled={drop.isPending} onClick={() => drop.mutate()}>
            Take it away
          </Button>
        </p>
      )}
      {drop.error && <Trouble>{drop.error.message}</Trouble>}
      {skill.restsOn.length > 0 && <p className="text-soft">rests on {skill.restsOn.map(name).join(", ")}</p>}
      <ol className="list-decimal pl-5">
        {skill.chain.map((t) => (
          <li key={t.do}>
            {t.do}{" "}
            <span className="text-soft">
              {plural(t.minutes, "minute")} a day, {plural(t.weeks, "week")}
            </span>
          </li>
        ))}
      </ol>
    </li>
  );
}

// Forecasts tells how what was foretold held, for all students together.
function Forecasts() {
  const view = useQuery(forecastsView).data;
  if (!view) return null;
  return (
    <p className="mb-3 rounded bg-raised px-4 py-2">
      {view.of === 0
        ? "No piece is finished yet. "
        : `Of ${plural(view.of, "foothold")} in this studio ${view.kept} came in the weeks that the first lesson foretold; eight in ten are meant to. `}
      A new student's usual piece is foretold {span(view.usual.low, view.usual.high)} here.
    </p>
  );
}
