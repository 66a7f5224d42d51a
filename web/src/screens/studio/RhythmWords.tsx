import { useQuery } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../../api/client";
import { wordsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Shown } from "../../parts/Told";
import { Renewed, useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Words = Record<string, string>;

// RhythmWords is the list of spoken phrases for rhythms, to change by hand.
export function RhythmWords() {
  const query = useQuery(wordsView);
  return (
    <section aria-label={say("studio.rhythmWords")} className="rounded bg-raised p-4">
      <h2>{say("studio.rhythmWords")}</h2>
      <p className="my-1 text-soft">{say("studio.phraseSayEachRhythmOne")}</p>
      <Shown query={query}>
        {({ words, own }) => <Renewed>{(done) => <List words={words as Words} own={own} done={done} />}</Renewed>}
      </Shown>
    </section>
  );
}

function List({ words, own, done }: { words: Words; own: boolean; done: () => void }) {
  const [was] = useState(words);
  const [draft, setDraft] = useState(() => Object.entries(was).sort());
  const save = useKeep<Words>("words", (body) => answer(api.PUT("/api/words", { body })), done);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    save.keep(Object.fromEntries(draft.filter(([rhythm, words]) => rhythm.trim() && words.trim())), was);
  };
  const set = (i: number, entry: [string, string]) => setDraft(draft.map((was, j) => (j === i ? entry : was)));
  const field = "w-full rounded border border-line bg-ground px-2 py-1";
  return (
    <form onSubmit={submit} className="space-y-2">
      <div className="grid max-h-72 grid-cols-[9rem_1fr] gap-x-2 gap-y-1 overflow-y-auto">
        {draft.map(([rhythm, words], i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row is its place while it is edited
          <div key={i} className="contents">
            <input
              aria-label={say("studio.rhythm", { n: i + 1 })}
              className={field}
              value={rhythm}
              onChange={(e) => set(i, [e.target.value, words])}
            />
            <input
              aria-label={say("studio.wordsFor", { n: rhythm || say("studio.rhythm2", { n: i + 1 }) })}
              className={field}
              maxLength={60}
              value={words}
              onChange={(e) => set(i, [rhythm, e.target.value])}
            />
          </div>
        ))}
      </div>
      {save.asked}
      <div className="flex flex-wrap gap-2">
        <Button type="submit" disabled={save.busy}>
          {say("studio.saveWords")}
        </Button>
        <Button look="quiet" onClick={() => setDraft([...draft, ["", ""]])}>
          {say("studio.oneMore")}
        </Button>
        {own && (
          <Button look="quiet" disabled={save.busy} onClick={() => save.keep({}, was)}>
            {say("studio.backOurs")}
          </Button>
        )}
      </div>
    </form>
  );
}
