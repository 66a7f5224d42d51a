import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../../api/client";
import { skillsView } from "../../api/views";
import { Shown } from "../../parts/Told";
import { plural } from "../../parts/words";

const families: Record<string, string> = {
  shared: "Every instrument",
  keyboard: "Keyboards",
  bowed: "Bowed strings",
  plucked: "Plucked strings",
};

// NumbersScreen shows what every plan rests on: the skills with their weights
// and chains, and the numbers that are ours.
export function NumbersScreen() {
  const query = useQuery(skillsView);
  return (
    <Shown query={query}>
      {({ skills, numbers }) => (
        <main className="grid flex-1 content-start gap-6 px-4 py-3 lg:grid-cols-2">
          <section aria-label="Skills">
            <h1 className="text-head">What plans rest on</h1>
            <p className="mb-3 text-soft">
              {plural(skills.length, "skill")}, each with its weight when new, what it rests on, and the small tasks
              that prepare it. Weights and tasks are our judgement.
            </p>
            {Object.entries(Object.groupBy(skills, (s) => s.family)).map(([family, own = []]) => (
              <details key={family} className="mb-2 rounded bg-raised px-4 py-2">
                <summary className="cursor-pointer font-[620]">
                  {families[family]}: {own.length}
                </summary>
                <ul className="divide-y divide-faint">
                  {own.map((s) => (
                    <Skill key={s.id} skill={s} all={skills} />
                  ))}
                </ul>
              </details>
            ))}
          </section>
          <section aria-label="Numbers">
            <h2 className="text-head">Numbers that are ours</h2>
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

function Skill({ skill, all }: { skill: Schemas["Skill"]; all: Schemas["Skill"][] }) {
  const name = (id: string) => all.find((s) => s.id === id)?.name ?? id;
  return (
    <li className="py-1.5">
      <div className="flex justify-between gap-3">
        <b className="font-[620]">{skill.name}</b>
        <span className="shrink-0 text-soft">
          {skill.area} · {skill.weight}
        </span>
      </div>
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
