import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { activitiesView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown, Trouble } from "../../parts/Told";
import { say } from "../../words/say";
import { OwnActivity } from "./OwnActivity";

// ActivitiesScreen lists games and studies that lessons draw on, and takes the
// teacher's own.
export function ActivitiesScreen() {
  const query = useQuery(activitiesView);
  return <Shown query={query}>{(view) => <Activities view={view} />}</Shown>;
}

type View = Schemas["ActivitiesView"];

function Activities({ view }: { view: View }) {
  const [age, setAge] = useState(0);
  const [aim, setAim] = useState("");
  const [edited, edit] = useState<Schemas["Activity"]>();
  const [fresh, renew] = useState(() => ulid().toLowerCase()); // of the next own one, so that a double click keeps one
  const names = Object.fromEntries(view.aims.map((a) => [a.key, a.name]));
  const used = view.aims.filter((a) => view.activities.some((g) => g.aim === a.key));
  const list = view.activities.filter(
    (g) => (age === 0 || (age >= g.from && (g.to === 0 || age <= g.to))) && (aim === "" || g.aim === aim),
  );
  const field = "max-w-full rounded border border-line bg-raised px-2 py-1.5";
  return (
    <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-4 px-4 py-3 lg:grid-cols-[1fr_380px]">
      <section aria-label={say("activities.gamesStudies")}>
        <div className="flex flex-wrap items-center gap-3 pb-3">
          <h1 className="mr-2 text-head">{say("activities.gamesStudies")}</h1>
          <select
            aria-label={say("activities.age")}
            className={field}
            value={age}
            onChange={(e) => setAge(Number(e.target.value))}
          >
            <option value={0}>{say("activities.anyAge")}</option>
            {[3, 4, 5, 6, 7, 8, 10, 12, 14, 18].map((n) => (
              <option key={n} value={n}>
                {say("activities.at", { n })}
              </option>
            ))}
          </select>
          <select
            aria-label={say("activities.aim")}
            className={field}
            value={aim}
            onChange={(e) => setAim(e.target.value)}
          >
            <option value="">{say("activities.anyAim")}</option>
            {used.map((a) => (
              <option key={a.key} value={a.key}>
                {a.name}
              </option>
            ))}
          </select>
          <span className="text-soft">{say("count.activity", { n: list.length })}</span>
        </div>
        <ul className="divide-y divide-faint rounded bg-raised px-4">
          {list.map((g) => (
            <li key={g.id} className="grid gap-x-4 py-2.5 sm:grid-cols-[15rem_1fr]">
              <div>
                <b className="font-[620]">{g.title}</b>
                <span className="block text-small text-soft">
                  {names[g.aim] ?? g.aim} ·{" "}
                  {g.to
                    ? say("activities.ages", { from: g.from, to: g.to })
                    : say("activities.andUp", { from: g.from })}{" "}
                  {say("activities.toMin", { least: g.least, most: g.most })}
                  {g.moving && ` · ${say("activities.movement")}`}
                </span>
                {g.own && <Own activity={g} edit={() => edit(g)} />}
              </div>
              <div>
                <ol>
                  {g.levels.map((l, i) => (
                    <li key={l}>
                      <span className="mr-2 text-soft">{i + 1}</span>
                      {l}
                    </li>
                  ))}
                </ol>
                {g.exit && <p className="text-small text-soft">{say("activities.exitTest", { exit: g.exit })}</p>}
              </div>
            </li>
          ))}
          {list.length === 0 && <li className="py-4 text-soft">{say("activities.noneFitsChooseAnotherAge")}</li>}
        </ul>
      </section>
      <OwnActivity
        key={edited?.id ?? fresh}
        aims={view.aims}
        activity={edited}
        id={edited?.id ?? fresh}
        done={() => {
          edit(undefined);
          renew(ulid().toLowerCase());
        }}
      />
    </main>
  );
}

function Own({ activity, edit }: { activity: Schemas["Activity"]; edit: () => void }) {
  const drop = useMutation({
    mutationFn: () =>
      answer(
        api.DELETE("/api/activities/{activity}", {
          params: { path: { activity: activity.id } },
          body: { was: activity },
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ["activities"] }),
  });
  return (
    <span className="mt-1 flex gap-2">
      <Button look="quiet" className="px-2 py-0.5" onClick={edit}>
        {say("activities.edit")}
      </Button>
      <Button look="quiet" className="px-2 py-0.5" onClick={() => drop.mutate()} disabled={drop.isPending}>
        {say("activities.remove")}
      </Button>
      {drop.error && <Trouble>{drop.error.message}</Trouble>}
    </span>
  );
}
