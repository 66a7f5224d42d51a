import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

type Span = Schemas["Span"];
type Props = { view: Schemas["CalendarView"] };

const small = "w-full rounded border border-line bg-ground px-1.5 py-1";

// Spans keeps the terms and the days in them without lessons.
export function Spans({ view }: Props) {
  const [terms, setTerms] = useState(view.terms);
  const [free, setFree] = useState(view.free);
  const save = useMutation({
    mutationFn: () => answer(api.PUT("/api/calendar", { body: { terms, free } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    save.mutate();
  };
  const changed = JSON.stringify([terms, free]) !== JSON.stringify([view.terms, view.free]);
  return (
    <form onSubmit={submit} className="rounded bg-raised p-3">
      <List name="Terms" one="term" list={terms} set={setTerms} today={view.today} />
      <List name="Free days in them" one="free week" list={free} set={setFree} today={view.today} />
      {terms.length === 0 && <p className="text-soft">Without a term, lessons go on all year.</p>}
      <Button look="main" type="submit" className="mt-2" disabled={!changed || save.isPending}>
        {changed ? "Keep terms and free days" : "Kept"}
      </Button>
      {save.error && <Trouble>{save.error.message}</Trouble>}
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
            aria-label={`Name of the ${one}`}
            required
            maxLength={100}
            className={`max-sm:col-span-3 ${small}`}
            value={s.name}
            onChange={(e) => change(i, { name: e.target.value })}
          />
          {(["from", "to"] as const).map((end) => (
            <input
              key={end}
              aria-label={`${end === "from" ? "First" : "Last"} day of ${s.name}`}
              type="date"
              required
              className={small}
              value={s[end]}
              onChange={(e) => change(i, { [end]: e.target.value })}
            />
          ))}
          <button
            type="button"
            aria-label={`Remove ${s.name}`}
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
        Add a {one}
      </button>
    </fieldset>
  );
}
