import { type FormEvent, useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Renewed, useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Span = Schemas["Span"];
type Props = { view: Schemas["CalendarView"] };

const small = "w-full rounded border border-line bg-ground px-1.5 py-1";

// Spans keeps the terms and the days in them without lessons.
export function Spans({ view }: Props) {
  return <Renewed>{(done) => <Form view={view} done={done} />}</Renewed>;
}

function Form({ view, done }: Props & { done: () => void }) {
  const [was] = useState({ terms: view.terms, free: view.free });
  const [terms, setTerms] = useState(was.terms);
  const [free, setFree] = useState(was.free);
  const save = useKeep<typeof was>("terms", (body) => answer(api.PUT("/api/calendar", { body })), done);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    save.keep({ terms, free }, was);
  };
  const changed = JSON.stringify([terms, free]) !== JSON.stringify([was.terms, was.free]);
  return (
    <form onSubmit={submit} className="rounded bg-raised p-3">
      <List name={say("calendar.terms")} one="term" list={terms} set={setTerms} today={view.today} />
      <List name={say("calendar.holidays")} one="holiday" list={free} set={setFree} today={view.today} />
      {terms.length === 0 && <p className="text-soft">{say("calendar.withoutTermLessonsGoAll")}</p>}
      <Button look="main" type="submit" className="mt-2" disabled={!changed || save.busy}>
        {changed ? say("calendar.saveTermsHolidays") : say("calendar.saved")}
      </Button>
      {save.asked}
    </form>
  );
}

const row = "mb-1 grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] gap-1 sm:grid-cols-[1fr_128px_128px_auto]";

type ListProps = { name: string; one: string; list: Span[]; set: (list: Span[]) => void; today: string };

function List({ name, one, list, set, today }: ListProps) {
  const change = (i: number, to: Partial<Span>) => set(list.map((s, k) => (k === i ? { ...s, ...to } : s)));
  return (
    <fieldset className="mb-3 min-w-0">
      <legend className="mb-1 font-[650]">{name}</legend>
      {list.map((s, i) => (
        // a span has no name of its own until one is typed
        // biome-ignore lint/suspicious/noArrayIndexKey: rows are added at the end and keep their place
        <div key={i} className={row}>
          <input
            aria-label={say("calendar.nameOfThe", { one })}
            required
            maxLength={100}
            className={`max-sm:col-span-3 ${small}`}
            value={s.name}
            onChange={(e) => change(i, { name: e.target.value })}
          />
          {(["from", "to"] as const).map((end) => (
            <input
              key={end}
              aria-label={say("calendar.dayOf", {
                value: end === "from" ? say("calendar.first") : say("calendar.last"),
                name: s.name,
              })}
              type="date"
              required
              className={small}
              value={s[end]}
              onChange={(e) => change(i, { [end]: e.target.value })}
            />
          ))}
          <button
            type="button"
            aria-label={say("calendar.remove", { name: s.name })}
            className="w-7 text-[18px] leading-none text-soft hover:text-ink"
            onClick={() => set(list.filter((_, k) => k !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        className="font-[620] underline underline-offset-4"
        onClick={() => set([...list, { name: "", from: today, to: today }])}
      >
        {say("calendar.addA", { one })}
      </button>
    </fieldset>
  );
}
