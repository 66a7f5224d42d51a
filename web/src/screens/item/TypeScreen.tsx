import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { useDeferredValue, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument } from "../../parts/instruments";
import { Score } from "../../parts/Score";
import { Trouble } from "../../parts/Told";
import { notKept, strandNames } from "../../parts/words";
import { say } from "../../words/say";

type Strand = Schemas["Item"]["strand"];

const start = "X:1\nT:A new tune\nM:4/4\nL:1/4\nK:C\nC D E D | E2 D2 | C D E D | C4 |]\n";
// TypeScreen: a tune written as ABC, drawn while it is typed, what is wrong
// underlined where it stands, and put on the shelf when it is right.
export function TypeScreen() {
  const [abc, setABC] = useState(start);
  const [instrument, setInstrument] = useState("piano");
  const [strand, setStrand] = useState<Strand>("repertoire");
  const [book, setBook] = useState("");
  const id = useRef(ulid()); // so that saving twice adds one
  const go = useNavigate();
  const asked = useDeferredValue(abc);
  const draft = useQuery({
    queryKey: ["draft", asked, instrument],
    queryFn: () => answer(api.POST("/api/draft", { body: { abc: asked, instrument } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const save = useMutation({
    mutationFn: () =>
      answer(
        api.POST("/api/import", {
          params: { query: { id: id.current, name: "typed.abc", book: book.trim(), instrument, strand } },
          body: new Blob([abc]) as unknown as string,
          bodySerializer: (b) => b as unknown as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: async ({ items }) => {
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      if (items[0]) await go({ to: "/items/$item", params: { item: items[0].id } });
    },
  });
  const view = draft.data;
  const wrong = view?.wrong;
  const [right, keep] = useState<Schemas["DraftView"]>(); // the last that could be read
  if (view?.xml && view !== right) keep(view);
  return (
    <main className="grid flex-1 content-start gap-5 px-4 py-3 lg:grid-cols-[440px_1fr]">
      <div className="space-y-3">
        <p className="text-soft">
          <Link to="/shelf" className="underline underline-offset-4">
            {say("item.shelf")}
          </Link>
        </p>
        <h1 className="text-head">{say("item.typeTune")}</h1>
        <Text abc={abc} set={setABC} wrong={wrong} />
        {wrong ? (
          <Trouble>
            {wrong.line > 0 &&
              say("item.line", { line: wrong.line, value: wrong.bar > 0 ? say("item.bar", { bar: wrong.bar }) : "" })}
            {wrong.says}
          </Trouble>
        ) : (
          draft.error && <Trouble again={draft.refetch}>{draft.error.message}</Trouble>
        )}
        <div className="grid grid-cols-3 gap-2 font-[580]">
          <PickInstrument className={field} value={instrument} set={setInstrument} />
          <label>
            {say("item.area")}
            <select className={field} value={strand} onChange={(e) => setStrand(e.target.value as Strand)}>
              {Object.entries(strandNames).map(([key, name]) => (
                <option key={key} value={key}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <label>
            {say("item.bookCollection")}
            <input
              className={field}
              value={book}
              placeholder={say("item.looseSheets")}
              onChange={(e) => setBook(e.target.value)}
            />
          </label>
        </div>
        {save.error && <Trouble>{save.error.message}</Trouble>}
        <Button
          look="main"
          disabled={!view || !!wrong || save.isPending || asked !== abc}
          onClick={() => save.mutate()}
        >
          {say("item.putShelf")}
        </Button>
        <Help />
      </div>
      <div className="min-w-0 space-y-3">
        {right ? (
          <div className={wrong ? "opacity-60" : ""}>
            <Score xml={right.xml} title={right.title || say("item.theTune")} />
          </div>
        ) : (
          <p className="rounded bg-raised p-6 text-soft">{say("item.tuneDrawnHereSoonCan")}</p>
        )}
        {view && view.minute.length > 0 && (
          <section aria-label={say("item.readOffTune")} className="rounded bg-raised px-4 py-3">
            <h2 className="mb-1">{say("item.readOffTune")}</h2>
            <ul className="space-y-0.5">
              {view.minute.map((r) => (
                <li key={r.says}>{r.says}</li>
              ))}
            </ul>
            {view.unread.length > 0 && (
              <p className="mt-2 text-soft">{say("item.notKept", { notKept: notKept(view.unread) })}</p>
            )}
          </section>
        )}
      </div>
    </main>
  );
}

const same = "block w-full whitespace-pre-wrap break-words rounded border px-3 py-2 font-mono text-[15px] leading-6";

// Text is the typed tune; a copy behind it underlines what is wrong.
function Text({ abc, set, wrong }: { abc: string; set: (abc: string) => void; wrong?: Schemas["Wrong"] }) {
  const behind = useRef<HTMLPreElement>(null);
  const lines = abc.split("\n");
  const at = wrong ? Math.min(Math.max(wrong.line, 1), lines.length) - 1 : -1;
  const from = wrong && wrong.column > 0 ? wrong.column - 1 : 0;
  return (
    <div className="relative">
      <pre
        ref={behind}
        aria-hidden="true"
        className={`${same} absolute inset-0 m-0 overflow-hidden border-transparent text-transparent`}
      >
        {lines.map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place
          <span key={i}>
            {i === at ? (
              <>
                {line.slice(0, from)}
                <mark className="bg-transparent text-transparent underline decoration-warn decoration-wavy decoration-2 underline-offset-4">
                  {line.slice(from) || " "}
                </mark>
              </>
            ) : (
              line
            )}
            {"\n"}
          </span>
        ))}
      </pre>
      <textarea
        aria-label={say("item.tuneAbc")}
        aria-invalid={!!wrong}
        spellCheck={false}
        rows={14}
        value={abc}
        onChange={(e) => set(e.target.value)}
        onScroll={(e) => {
          if (behind.current) behind.current.scrollTop = e.currentTarget.scrollTop;
        }}
        className={`${same} relative resize-y border-line bg-transparent`}
      />
    </div>
  );
}

const signs: [string, string][] = [
  ["C D E … B c d", say("item.notesFromMiddleC")],
  ["C, c'", say("item.octaveLowerOctaveHigher")],
  ["C2 C/2 C3/2", say("item.twiceHalfOneHalfTimes")],
  ["^F _B =F", say("item.sharpFlatNatural")],
  ["z2 | |: :| |]", say("item.restBarLineRepeatEnd")],
  [say("item.cDCCCeg"), say("item.slurTieChord")],
  ["(3CDE  .C  !1!C", say("item.tripletDetachedFinger")],
  ['"Am"C  "^gently"C', say("item.chordSymbolWordsAboveNote")],
  [say("item.wHarBourLight"), say("item.wordsLineUnderNotes")],
];

function Help() {
  return (
    <details className="rounded bg-raised px-4 py-3">
      <summary className="cursor-pointer font-[650]">{say("item.theSigns")}</summary>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {signs.map(([sign, means]) => (
          <div key={sign} className="contents">
            <dt>
              <code className="font-mono">{sign}</code>
            </dt>
            <dd className="text-soft">{means}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
