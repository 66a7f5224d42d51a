import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../../api/client";
import { shelfView, skillsView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { useInstruments } from "../../parts/instruments";
import { Shown } from "../../parts/Told";
import { slopes, strandNames } from "../../parts/words";
import { say } from "../../words/say";
import { EditItem } from "./EditItem";
import { ImportScores } from "./ImportScores";
import { OwnBooks } from "./OwnBooks";
import { Table } from "./Table";
import { Title } from "./Title";
import { TitleList } from "./TitleList";

type Asked = { words: string; instrument: string; taste: string; slope: string; student: string };

const blank: Omit<Schemas["Item"], "id"> = {
  title: "",
  instrument: "piano",
  strand: "book",
  book: "",
  unit: "",
  brings: [],
  needs: [],
  revisits: [],
  parts: [],
  points: [],
  bars: 0,
  staves: 0,
  hasScore: false,
};

const none: Asked = { words: "", instrument: "", taste: "", slope: "", student: "" };
const pickBox = "rounded border border-line bg-raised px-2 py-1.5";

// ShelfScreen: all materials by book and unit, each book as a profile of its
// loads, and the ways to bring in more.
export function ShelfScreen() {
  const [asked, setAsked] = useState(none);
  const set = (change: Partial<Asked>) => setAsked((was) => ({ ...was, ...change }));
  const query = useQuery({ ...shelfView(asked.student), placeholderData: keepPreviousData });
  const [made, make] = useState<Schemas["Item"]>();
  const { data: day } = useDay();
  const student = day?.students.find((s) => s.id === asked.student);
  const instruments = useInstruments();
  const shelves = [...new Set(query.data?.items.map((it) => instruments.of(it.instrument)?.shelf ?? it.instrument))];
  const instrument = student ? (instruments.of(student.instrument)?.shelf ?? student.instrument) : asked.instrument;
  return (
    <main className="grid flex-1 content-start gap-5 px-4 py-3 lg:grid-cols-[1fr_340px]">
      <section aria-label={say("shelf.books")} className="min-w-0">
        <div className="flex flex-wrap items-center gap-2.5 pb-3">
          <h1 className="mr-2 text-head">{say("shelf.shelf")}</h1>
          <input
            aria-label={say("shelf.findShelf")}
            placeholder={say("shelf.titleBookUnitSkill")}
            value={asked.words}
            onChange={(e) => set({ words: e.target.value })}
            className={`w-56 placeholder:text-soft ${pickBox}`}
          />
          <Pick
            name={say("shelf.instrument")}
            all={say("shelf.everyInstrument")}
            choices={shelves}
            say={instruments.name}
            value={instrument}
            set={(instrument) => set({ instrument, student: "" })}
          />
          <Pick
            name={say("shelf.taste")}
            all={say("shelf.everyTaste")}
            choices={["lively", "lyrical", "familiar"]}
            value={asked.taste}
            set={(taste) => set({ taste })}
          />
          <Pick
            name={say("shelf.load")}
            all={say("shelf.everyLoad")}
            choices={["landing", "step", "climb"]}
            say={(slope) => slopes[slope as keyof typeof slopes]}
            value={asked.slope}
            set={(slope) => set({ slope })}
          />
          <select
            aria-label={say("shelf.loadsFor")}
            className={pickBox}
            value={asked.student}
            onChange={(e) => set({ student: e.target.value })}
          >
            <option value="">{say("shelf.typicalStudent")}</option>
            {day?.students.map((s) => (
              <option key={s.id} value={s.id}>
                {say("shelf.for", { firstName: s.firstName })}
              </option>
            ))}
          </select>
        </div>
        {made && <EditItem key={made.id} item={made} close={() => make(undefined)} />}
        <Shown query={query}>{(shelf) => <Books shelf={shelf} asked={{ ...asked, instrument }} />}</Shown>
      </section>
      <div className="space-y-4">
        <ImportScores books={[...new Set(query.data?.items.map((it) => it.book))]} reads={query.data?.reads ?? []} />
        <Table />
        <TitleList />
        <div className="grid grid-cols-2 gap-2">
          <Button onClick={() => make({ ...blank, id: ulid() })}>{say("shelf.writeNewItem")}</Button>
          <Link
            to="/shelf/type"
            className="flex items-center justify-center rounded border border-ink bg-raised px-4 py-2 font-[620] hover:bg-faint"
          >
            {say("shelf.typeTune")}
          </Link>
        </div>
        {query.data && <Faults {...query.data} />}
      </div>
    </main>
  );
}

type PickProps = {
  name: string;
  all: string;
  choices: string[];
  say?: (choice: string) => string;
  value: string;
  set: (value: string) => void;
};

// Pick narrows the shelf by one thing.
function Pick({ name, all, choices, say, value, set }: PickProps) {
  return (
    <select aria-label={name} className={pickBox} value={value} onChange={(e) => set(e.target.value)}>
      <option value="">{all}</option>
      {choices.map((c) => (
        <option key={c} value={c}>
          {say ? say(c) : c}
        </option>
      ))}
    </select>
  );
}

type Shelf = Schemas["ShelfView"];

function Books({ shelf, asked }: { shelf: Shelf; asked: Asked }) {
  const skills = useQuery(skillsView).data?.skills;
  const named = (it: Schemas["Item"]) =>
    [...it.brings, ...it.needs, ...it.revisits].map((id) => skills?.find((s) => s.id === id)?.name ?? id).join(" ");
  const instruments = useInstruments();
  const words = asked.words.toLowerCase();
  const found = shelf.items.filter(
    (it) =>
      (!asked.instrument || instruments.together(it.instrument, asked.instrument)) &&
      (!asked.taste || it.taste === asked.taste) &&
      (!asked.slope || shelf.loads[it.id]?.slope === asked.slope) &&
      `${it.title} ${it.book} ${it.unit} ${it.composer ?? ""} ${words ? named(it) : ""}`.toLowerCase().includes(words),
  );
  if (shelf.items.length === 0)
    return (
      <div className="rounded bg-raised p-6">
        <OwnBooks />
      </div>
    );
  if (found.length === 0) return <p className="text-soft">{say("shelf.nothingShelfAnswers")}</p>;
  return Object.entries(Object.groupBy(found, (it) => it.book)).map(([book, list = []]) => (
    <section key={book} aria-label={book} className="mb-4 rounded bg-raised px-4 py-3">
      <Title book={book} away={list.every((it) => it.archived)}>
        <span className="text-body font-normal text-soft">
          {instruments.name(list[0]?.instrument ?? "")} · {say("count.item", { n: list.length })}
        </span>
      </Title>
      <Profile shelf={shelf} list={list.filter((it) => it.strand === "book" || it.strand === "repertoire")} />
      <div className="mt-1 grid gap-x-6 gap-y-3 sm:grid-cols-2 xl:grid-cols-3">
        {Object.entries(Object.groupBy(list, (it) => it.unit)).map(([unit, own = []]) => (
          <div key={unit} className="min-w-0">
            {unit && <Title book={book} unit={unit} className="border-b border-line pb-0.5" />}
            <ul>
              {own.map((it) => (
                <li key={it.id}>
                  <Link
                    to="/items/$item"
                    params={{ item: it.id }}
                    className="flex items-baseline justify-between gap-2 rounded-sm px-1 py-[3px] hover:bg-faint"
                  >
                    <span className="truncate font-[560]">{it.title}</span>
                    <span className="text-right text-small text-soft">{note(it, shelf.loads[it.id])}</span>
                  </Link>
                </li>
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  ));
}

function note(it: Schemas["Item"], load?: Schemas["Load"]) {
  if (it.archived) return say("shelf.archived");
  const slope = load && load.slope !== "step" ? slopes[load.slope] : "";
  if (it.strand === "book" || it.strand === "repertoire")
    return [it.taste, slope, it.bars ? say("shelf.bars2", { bars: it.bars }) : ""].filter(Boolean).join(" · ");
  return [strandNames[it.strand], slope].filter(Boolean).join(" · ");
}

const perLoad = 17; // px
const tall = 3.5;

// Profile draws a book as its loads, piece after piece: climbs stand dark,
// landings low and light. The list below says the same in words.
function Profile({ shelf, list }: { shelf: Shelf; list: Schemas["Item"][] }) {
  if (list.length < 3) return null;
  const count = (slope: string) => list.filter((it) => shelf.loads[it.id]?.slope === slope).length;
  return (
    <div
      role="img"
      aria-label={say("shelf.loadsPieceAfterPieceClimbs", { count: count("climb"), count2: count("landing") })}
      className="relative my-2 flex items-end gap-[3px] border-b border-line"
      style={{ height: tall * perLoad + 6 }}
    >
      {list.map((it) => {
        const load = shelf.loads[it.id];
        const total = load?.total ?? 0;
        return (
          <span
            key={it.id}
            title={say("shelf.load2", {
              title: it.title,
              amount: total.toFixed(1),
              value: load && load.slope !== "step" ? `, ${slopes[load.slope]}` : "",
            })}
            className={`max-w-7 flex-1 rounded-t-sm ${
              load?.slope === "climb" ? "bg-ink" : load?.slope === "landing" ? "bg-line" : "bg-soft/70"
            }`}
            style={{ height: Math.max(Math.min(total, tall) * perLoad, 4) }}
          />
        );
      })}
      <span
        className="absolute inset-x-0 border-t border-dotted border-soft"
        style={{ bottom: Math.min(shelf.usual[list[0]?.instrument ?? ""] ?? 0, tall) * perLoad }}
      />
    </div>
  );
}

// Faults lists what is wrong between the shelf and the skill graph, and where
// tags and scores disagree.
function Faults({ faults, disagree, more }: Shelf) {
  const count = faults.length + disagree.length + more;
  if (count === 0) return null;
  return (
    <details className="rounded bg-raised p-4">
      <summary className="cursor-pointer font-[620]">{say("shelf.thingsPutOrder", { count })}</summary>
      <ul className="mt-1 space-y-1">
        {faults.map((f) => (
          <li key={f.item + f.why.says}>
            {f.item ? (
              <Link to="/items/$item" params={{ item: f.item }} className="underline underline-offset-4">
                {f.why.says}
              </Link>
            ) : (
              f.why.says
            )}
          </li>
        ))}
        {disagree.map((d) => (
          <li key={d.item + d.skill}>
            <Link to="/items/$item" params={{ item: d.item }} className="underline underline-offset-4">
              {d.title}:{" "}
              {d.asked
                ? say("shelf.notesAskNoTagSays", { name: d.name })
                : say("shelf.notesDoNotShow", { tagged: d.tagged, name: d.name })}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}
