import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { forecastsView, skillsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { families } from "../../parts/instruments";
import { Shown, Trouble } from "../../parts/Told";
import { span } from "../../parts/words";
import { say } from "../../words/say";
import { areaNames, OwnSkill } from "./OwnSkill";

// NumbersScreen shows what every plan rests on: the skills with their weights
// and chains, and the numbers that are ours.
export function NumbersScreen() {
  const query = useQuery(skillsView);
  const [edited, edit] = useState<Schemas["Skill"] | "new">();
  return (
    <Shown query={query}>
      {({ skills, own, numbers }) => (
        <main className="grid flex-1 content-start gap-6 px-4 py-3 lg:grid-cols-2">
          <section aria-label={say("studio.skills")}>
            <h1 className="text-head">{say("studio.whatPlansRest")}</h1>
            <p className="mb-3 text-soft">{say("studio.skillsEachWithItsWeight", { skills: skills.length })}</p>
            {edited ? (
              <OwnSkill
                key={edited === "new" ? "" : edited.id}
                all={skills}
                skill={edited === "new" ? undefined : edited}
                done={() => edit(undefined)}
              />
            ) : (
              <p className="mb-3">
                <Button onClick={() => edit("new")}>{say("studio.addSkill")}</Button>
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
          <section aria-label={say("studio.numbers")}>
            <h2 className="text-head">{say("studio.numbersAreOurs")}</h2>
            <Forecasts />
            <p className="mb-3 text-soft">{say("studio.notPublishedAnywhereJudgementsWhat")}</p>
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
    mutationFn: () =>
      answer(api.DELETE("/api/skills/{skill}", { params: { path: { skill: skill.id } }, body: { was: skill } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["skills"] }),
  });
  const name = (id: string) => all.find((s) => s.id === id)?.name ?? id;
  return (
    <li className="py-1.5">
      <div className="flex justify-between gap-3">
        <b className="font-[620]">{skill.name}</b>
        <span className="shrink-0 text-soft">
          {areaNames[skill.area] ?? skill.area} · {skill.weight}
        </span>
      </div>
      {edit && (
        <p className="flex items-center gap-2">
          <span className="text-soft">{say("studio.yours")}</span>
          <Button look="quiet" onClick={edit}>
            {say("studio.edit")}
          </Button>
          <Button look="quiet" disabled={drop.isPending} onClick={() => drop.mutate()}>
            {say("studio.remove")}
          </Button>
        </p>
      )}
      {drop.error && <Trouble>{drop.error.message}</Trouble>}
      {skill.restsOn.length > 0 && (
        <p className="text-soft">{say("studio.restsOn", { list: skill.restsOn.map(name).join(", ") })}</p>
      )}
      <ol className="list-decimal pl-5">
        {skill.chain.map((t) => (
          <li key={t.do}>
            {t.do}{" "}
            <span className="text-soft">{say("studio.minutesDayWeeks", { minutes: t.minutes, weeks: t.weeks })}</span>
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
        ? say("studio.noPieceFinishedYet")
        : `${say("studio.forecastsHeld", { n: view.of, kept: view.kept })} `}
      {say("studio.newStudentsUsualPieceForetold", { weeks: span(view.usual.low, view.usual.high) })}
    </p>
  );
}
