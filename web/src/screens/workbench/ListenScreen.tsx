import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { act } from "../../api/outbox";
import { listenView } from "../../api/views";
import { shortDay } from "../../parts/dates";
import { PickStudent } from "../../parts/PickStudent";
import { Shown } from "../../parts/Told";
import { Trial } from "../../parts/Trial";
import { WorkbenchPlaces } from "../../parts/WorkbenchPlaces";
import { say } from "../../words/say";

// ListenScreen is listening and answering: each skill of hearing and of pulse in levels, with its exit
// test; and what is tried by playing it in.
export function ListenScreen() {
  const { student } = useSearch({ from: "/inside/workbench/listen" });
  const go = useNavigate();
  const query = useQuery(listenView(student ?? ""));
  return (
    <main className="flex flex-1 flex-col gap-3 px-4 py-3">
      <WorkbenchPlaces student={student} />
      <div className="flex flex-wrap items-end gap-4">
        <h1 className="text-head">{say("workbench.earRhythmTraining")}</h1>
        <PickStudent
          anybody
          value={student ?? ""}
          set={(id) => void go({ to: "/workbench/listen", search: { student: id || undefined } })}
        />
      </div>
      <Shown query={query}>{(view) => <At key={student} view={view} student={student} />}</Shown>
    </main>
  );
}

type AtProps = { view: Schemas["ListenView"]; student?: string };

function At({ view, student }: AtProps) {
  const heard = view.trials.filter((t) => t.kind !== "play");
  const played = view.trials.filter((t) => t.kind === "play");
  const [chosen, choose] = useState(view.next || heard[0]?.skill);
  const trial = heard.find((t) => t.skill === chosen);
  return (
    <div className="grid items-start gap-4 lg:grid-cols-[360px_1fr]">
      <section aria-label={say("workbench.whatCanTried")} className="lg:order-none">
        <ul className="divide-y divide-faint rounded bg-raised">
          {heard.map((t) => (
            <li key={t.skill}>
              <button
                type="button"
                aria-pressed={t.skill === chosen}
                onClick={() => choose(t.skill)}
                className={`flex w-full items-baseline gap-2 px-3 py-1.5 text-left ${t.skill === chosen ? "bg-now-tint" : "hover:bg-faint"}`}
              >
                <span className="flex-1 font-[580]">{t.name}</span>
                <span className={t.passed ? "text-keep" : "text-soft"}>
                  {t.passed
                    ? say("workbench.passed")
                    : t.level > 0
                      ? say("workbench.levelOf", {
                          level: t.level,
                          levels: t.levels.length,
                          value: t.at ? `, ${shortDay(t.at.slice(0, 10))}` : "",
                        })
                      : t.skill === view.next
                        ? say("workbench.comesNext")
                        : ""}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <div>
        {trial && (
          <Trial
            key={trial.skill}
            trial={trial}
            judges
            call={(body) => answer(api.POST("/api/listening/call", { body }))}
            reply={(body) => answer(api.POST("/api/listening/reply", { body }))}
            keep={student ? (bodies) => act(student, bodies) : undefined}
          />
        )}
        {played.length > 0 && (
          <section aria-label={say("workbench.triedPlaying")} className="mt-4">
            <h2 className="mb-1.5">{say("workbench.triedPlaying2")}</h2>
            <ul className="flex flex-wrap gap-2">
              {played.map((t) => (
                <li key={t.skill}>
                  <Link
                    to="/workbench/exercises"
                    search={{ student, exercise: t.exercise }}
                    className="inline-block rounded border border-line bg-raised px-3 py-1.5 hover:bg-faint"
                  >
                    {t.name}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
