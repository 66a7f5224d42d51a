import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries } from "../../api/client";
import { wordsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown, Trouble } from "../../parts/Told";

type Words = Record<string, string>;

// RhythmWords is the list of spoken phrases for rhythms, to change by hand.
export function RhythmWords() {
  const query = useQuery(wordsView);
  return (
    <section aria-label="Rhythm words" className="rounded bg-raised p-4">
      <h2>Rhythm words</h2>
      <p className="my-1 text-soft">
        A phrase to say for each rhythm of one beat or more, before it is played. Lengths are in beats, r before a rest.
      </p>
      <Shown query={query}>
        {({ words, own }) => <List key={JSON.stringify(words)} words={words as Words} own={own} />}
      </Shown>
    </section>
  );
}

function List({ words, own }: { words: Words; own: boolean }) {
  const [draft, setDraft] = useState(() => Object.entries(words).sort());
  const save = useMutation({
    mutationFn: (words: Words) => answer(api.PUT("/api/words", { body: { words } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent) => {
    e.preventDefault();
    save.mutate(Object.fromEntries(draft.filter(([rhythm, say]) => rhythm.trim() && say.trim())));
  };
  const set = (i: number, entry: [string, string]) => setDraft(draft.map((was, j) => (j === i ? entry : was)));
  const field = "w-full rounded border border-line bg-ground px-2 py-1";
  return (
    <form onSubmit={submit} className="space-y-2">
      <div className="grid max-h-72 grid-cols-[9rem_1fr] gap-x-2 gap-y-1 overflow-y-auto">
        {draft.map(([rhythm, say], i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place while it is edited
          <div key={i} className="contents">
            <input
              aria-label={`Rhythm ${i + 1}`}
              className={field}
              value={rhythm}
              onChange={(e) => set(i, [e.target.value, say])}
            />
            <input
              aria-label={`Words for ${rhythm || `rhythm ${i + 1}`}`}
              className={field}
              maxLength={60}
              value={say}
              onChange={(e) => set(i, [rhythm, e.target.value])}
            />
          </div>
        ))}
      </div>
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" disabled={save.isPending}>
          Keep the words
        </Button>
        <Button look="quiet" onClick={() => setDraft([...draft, ["", ""]])}>
          One more
        </Button>
        {own && (
          <Button look="quiet" disabled={save.isPending} onClick={() => save.mutate({})}>
            Back to ours
          </Button>
        )}
      </div>
    </form>
  );
}
