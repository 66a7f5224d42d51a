import { Link } from "@tanstack/react-router";
import { type DragEvent, type FormEvent, useId, useState } from "react";
import { ulid } from "ulid";
import { answer, api, Problem, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument } from "../../parts/instruments";
import { notKept, strandNames } from "../../parts/words";
import { say } from "../../words/say";

type Result = {
  id: string;
  name: string;
  done?: Schemas["Imported"];
  failed?: string;
  again?: () => void; // brings it in though the same file is there
  only?: (parts: number[]) => void; // brings in the parts that the student plays
};
type Place = {
  book: string;
  unit: string;
  instrument: string;
  strand: "book" | "technique" | "reading" | "repertoire";
};

const biggest = 16 * 2 ** 20;

// ImportScores takes score files by drop or by the file picker, reads them one
// after another, and says of each what came of it.
export function ImportScores({ books, reads }: { books: string[]; reads: string[] }) {
  const [place, setPlace] = useState<Place>({ book: "", unit: "", instrument: "piano", strand: "book" });
  const [results, setResults] = useState<Result[]>([]);
  const [over, setOver] = useState(false);
  const list = useId();

  const take = async (files: File[]) => {
    const batch = files.map((file) => ({ file, id: ulid() }));
    setResults((old) => [...batch.map(({ file, id }) => ({ id, name: file.name })), ...old]);
    for (const { file, id } of batch) {
      const outcome = await read(file, id, place);
      become(id, { ...outcome, ...asks(outcome, file, id) });
    }
    await queries.invalidateQueries({ queryKey: ["shelf"] });
  };
  const become = (id: string, outcome: Partial<Result>) =>
    setResults((old) => old.map((r) => (r.id === id ? { ...r, ...outcome } : r)));
  // asks are what is to be answered before a file comes onto the shelf.
  const asks = (outcome: Partial<Result>, file: File, id: string, parts?: number[]): Partial<Result> => ({
    again: outcome.done?.twins.length ? () => void bring(file, id, true, parts) : undefined,
    only: outcome.done?.parts.length ? (chosen) => void bring(file, id, false, chosen) : undefined,
  });
  const bring = async (file: File, id: string, again: boolean, parts?: number[]) => {
    become(id, { done: undefined, again: undefined, only: undefined });
    const outcome = await read(file, id, place, again, parts);
    become(id, { ...outcome, ...asks(outcome, file, id, parts) });
    await queries.invalidateQueries({ queryKey: ["shelf"] });
  };
  const drop = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    void take([...e.dataTransfer.files]);
  };
  return (
    <section aria-label={say("shelf.importScores")} className="space-y-3">
      <h2 className="text-large">{say("shelf.importScores")}</h2>
      <div className="grid grid-cols-2 gap-2 font-[580]">
        <label className="col-span-2">
          {say("shelf.book")}
          <input
            className={field}
            list={list}
            value={place.book}
            placeholder={say("shelf.looseSheets")}
            onChange={(e) => setPlace({ ...place, book: e.target.value })}
          />
          <datalist id={list}>
            {books.map((b) => (
              <option key={b} value={b} />
            ))}
          </datalist>
        </label>
        <label className="col-span-2">
          {say("shelf.unitIfThereOne")}
          <input className={field} value={place.unit} onChange={(e) => setPlace({ ...place, unit: e.target.value })} />
        </label>
        <PickInstrument
          className={field}
          value={place.instrument}
          set={(instrument) => setPlace({ ...place, instrument })}
        />
        <label>
          {say("shelf.area")}
          <select
            className={field}
            value={place.strand}
            onChange={(e) => setPlace({ ...place, strand: e.target.value as Place["strand"] })}
          >
            {Object.entries(strandNames).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <label
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`block cursor-pointer rounded border-2 border-dashed p-6 text-center ${over ? "border-ahead bg-faint" : "border-line bg-raised"}`}
      >
        <b className="block font-[650]">{say("shelf.dropScoreFilesHereChoose")}</b>
        <span className="text-soft">{reads.join(" ")}</span>
        <input
          type="file"
          multiple
          accept={reads.join(",")}
          className="sr-only"
          onChange={(e) => {
            void take([...(e.target.files ?? [])]);
            e.target.value = "";
          }}
        />
      </label>
      <Progress results={results} />
      <ul aria-live="polite" className="space-y-1.5">
        {results.map((r) => (
          <li
            key={r.id}
            className={`rounded border-l-4 bg-raised px-3 py-2 ${r.failed ? "border-warn" : r.done ? "border-keep" : "border-line"}`}
          >
            <Outcome result={r} />
          </li>
        ))}
      </ul>
    </section>
  );
}

// Progress says how far a drop of several files has come.
function Progress({ results }: { results: Result[] }) {
  if (results.length < 2) return null;
  const done = results.filter((r) => r.done).length;
  const waits = results.filter((r) => r.only || r.again).length;
  const failed = results.filter((r) => r.failed).length;
  return (
    <div role="status">
      <progress
        aria-label={say("shelf.filesRead")}
        className="h-2 w-full accent-ink"
        max={results.length}
        value={done + failed}
      />
      {done + failed < results.length
        ? say("shelf.readingOf", { n: done + failed + 1, results: results.length })
        : say("shelf.ofOnTheShelf", { n: done - waits, results: results.length })}
      {waits > 0 && say("shelf.filesWaiting", { n: waits })}
      {failed > 0 && say("shelf.filesFailed", { n: failed })}
    </div>
  );
}

async function read(file: File, id: string, place: Place, again = false, parts?: number[]): Promise<Partial<Result>> {
  if (file.size === 0) return { failed: say("shelf.couldNotReadFileEmpty", { name: file.name }) };
  if (file.size > biggest) return { failed: say("shelf.largerThan16MbMore", { name: file.name }) };
  try {
    const query = {
      id,
      name: file.name,
      book: place.book.trim(),
      unit: place.unit.trim(),
      instrument: place.instrument,
      strand: place.strand,
      again,
      ...(parts && { parts }),
    };
    const done = await answer(
      api.POST("/api/import", {
        params: { query },
        body: file as unknown as string,
        bodySerializer: (b) => b as unknown as Blob,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    );
    return { done };
  } catch (error) {
    return {
      failed: error instanceof Problem ? error.message : say("shelf.couldNotOpenedDevice", { name: file.name }),
    };
  }
}

function Outcome({ result }: { result: Result }) {
  if (result.failed) return <span role="alert">{result.failed}</span>;
  if (!result.done) return <span className="text-soft">{say("shelf.reading", { name: result.name })}</span>;
  const { items, left, unread, twins } = result.done;
  return (
    <>
      {result.again && (
        <span role="alert" className="block">
          {say("shelf.shelfAlready", {
            name: result.name,
            list: twins.map((t) => say("shelf.titleOfBook", { title: t.title, book: t.book })).join(", "),
          })}{" "}
          <button type="button" className="font-[620] underline underline-offset-4" onClick={result.again}>
            {say("shelf.bringAllSame")}
          </button>
        </span>
      )}
      {result.only && <WhichParts name={result.name} parts={result.done.parts} take={result.only} />}
      {items.map((it) => (
        <Link
          key={it.id}
          to="/items/$item"
          params={{ item: it.id }}
          className="block font-[620] underline underline-offset-4"
        >
          {it.title}
        </Link>
      ))}
      {left.length > 0 && (
        <details role="alert" className="border-l-4 border-warn pl-2">
          <summary className="cursor-pointer">
            {say("shelf.tunesCouldNotReadOthers", { left: left.length, name: result.name })}
          </summary>
          <ul>
            {left.map((t) => (
              <li key={t.tune}>{say("shelf.tune", { tune: t.tune, says: t.says })}</li>
            ))}
          </ul>
        </details>
      )}
      <span className="text-soft">
        {!result.again && !result.only && result.name}
        {unread.length > 0 && say("shelf.notKept", { list: notKept(unread) })}
      </span>
    </>
  );
}

type Which = { name: string; parts: Schemas["PlayerPart"][]; take: (parts: number[]) => void };

// WhichParts asks of a score for several which parts the student plays.
function WhichParts({ name, parts, take }: Which) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const chosen = new FormData(e.currentTarget).getAll("part").map(Number);
    if (chosen.length > 0) take(chosen);
  };
  return (
    <form onSubmit={submit} role="alert" className="space-y-1">
      <p>{say("shelf.hasPartsWhichDoesStudent", { name, parts: parts.length })}</p>
      <div className="max-h-56 overflow-y-auto">
        {parts.map((p) => (
          <label key={p.part} className="flex items-center gap-2 py-0.5">
            <input type="checkbox" name="part" value={p.part} defaultChecked={p.likely} />
            {p.name || say("shelf.part2", { part: p.part })}
            <span className="text-soft">
              {p.staves > 1 && `${say("shelf.staves", { staves: p.staves })} `}
              {say("count.note", { n: p.notes })}
            </span>
          </label>
        ))}
      </div>
      <Button type="submit">{say("shelf.putShelf")}</Button>
    </form>
  );
}
