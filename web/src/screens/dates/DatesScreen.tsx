import { useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { eventsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";

type Event = Schemas["Event"];

export const kinds: Record<Event["kind"], string> = {
  concert: say("dates.concert"),
  exam: say("dates.exam"),
  other: say("dates.anotherDay"),
};

// keepEvent keeps a day on which students play before others.
export const keepEvent = (body: { was?: Event; now: Event }) =>
  answer(api.PUT("/api/events/{event}", { params: { path: { event: body.now.id } }, body }));

// DatesScreen lists the days on which students play before others, and begins another.
export function DatesScreen() {
  const query = useQuery(eventsView);
  const go = useNavigate();
  const id = useRef(ulid());
  const add = useMutation({
    mutationFn: (event: Event) => keepEvent({ now: event }),
    onSuccess: async (_, event) => {
      id.current = ulid();
      await queries.invalidateQueries();
      await go({ to: "/studio/dates/$event", params: { event: event.id } });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    add.mutate({
      id: id.current,
      name: String(form.get("name")),
      kind: String(form.get("kind")) as Event["kind"],
      day: String(form.get("day")),
      start: String(form.get("start")),
      place: String(form.get("place")),
      entries: [],
      placed: false,
    });
  };
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 content-start gap-6 px-4 pt-3 pb-6 lg:grid-cols-[1fr_340px]">
          <section aria-label={say("dates.concertsExams")} className="min-w-0">
            <StudioPlaces />
            <h1 className="my-3 text-head">{say("dates.concertsExams")}</h1>
            {[true, false].map((ahead) => {
              const list = view.events.filter((e) => e.day >= view.today === ahead);
              if (ahead) list.reverse();
              if (list.length === 0 && !(ahead && view.events.length === 0)) return null;
              return (
                <section key={String(ahead)} className="mb-4">
                  {!ahead && <h2 className="mb-1">{say("dates.over")}</h2>}
                  <ul className="divide-y divide-faint rounded bg-raised px-4">
                    {list.map((e) => (
                      <li key={e.id} className="flex flex-wrap items-baseline gap-x-4 py-2.5">
                        <span className="w-52 text-soft">{longDay(e.day)}</span>
                        <Link
                          to="/studio/dates/$event"
                          params={{ event: e.id }}
                          className="font-[650] underline-offset-4 hover:underline"
                        >
                          {e.name}
                        </Link>
                        <span className="text-soft">
                          {kinds[e.kind]}, {say("count.piece", { n: e.entries.length })}
                        </span>
                        {!ahead && !e.went && <span className="text-now">{say("dates.howDidGo")}</span>}
                      </li>
                    ))}
                    {list.length === 0 && (
                      <li className="py-3 text-soft">{say("dates.concertExamWeddingWhatPlayed")}</li>
                    )}
                  </ul>
                </section>
              );
            })}
          </section>
          <form
            onSubmit={submit}
            aria-label={say("dates.anotherDate")}
            className="grid gap-3 self-start rounded bg-raised p-4"
          >
            <h2>{say("dates.anotherDate")}</h2>
            <label>
              {say("dates.name")}
              <input name="name" required maxLength={100} className={field} placeholder={say("dates.winterConcert")} />
            </label>
            <label>
              {say("dates.kind")}
              <select name="kind" className={field}>
                {Object.entries(kinds).map(([key, name]) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
            <label>
              {say("dates.day")}
              <input name="day" type="date" required className={field} />
            </label>
            <label>
              {say("dates.at")}
              <input name="start" type="time" className={field} />
            </label>
            <label>
              {say("dates.place")}
              <input name="place" maxLength={200} className={field} />
            </label>
            {add.error && <Trouble>{add.error.message}</Trouble>}
            <Button look="main" type="submit" disabled={add.isPending}>
              {say("dates.putDown")}
            </Button>
          </form>
        </main>
      )}
    </Shown>
  );
}
