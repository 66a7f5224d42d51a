import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { shelfView } from "../../api/views";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument, useInstruments } from "../../parts/instruments";
import { BirthFields, SlotFields } from "../../parts/StudentFields";
import { Trouble } from "../../parts/Told";
import { strandNames } from "../../parts/words";
import { say } from "../../words/say";
import { OwnBooks } from "../shelf/OwnBooks";

type Asked = Schemas["NewStudent"];

const draft = "ladder.draft.student";

// NewStudent asks the least: name, birth month and year, instrument, lesson,
// books and where to begin; and shows the first rungs before anything is kept.
export function NewStudent() {
  const go = useNavigate();
  const id = useRef(ulid()); // one form, one student, however often it is sent
  const shelf = useQuery(shelfView(""));
  const [asked, setAsked] = useState<Omit<Asked, "id">>(() => ({
    firstName: "",
    familyName: "",
    birthMonth: 6,
    birthYear: 0,
    instrument: "piano",
    slot: { weekday: 1, start: "16:00", minutes: 30 },
    books: [],
    begin: "",
    ...JSON.parse(sessionStorage.getItem(draft) ?? "{}"), // what was half written
  }));
  const set = (change: Partial<Asked>) =>
    setAsked((was) => {
      const now = { ...was, ...change };
      sessionStorage.setItem(draft, JSON.stringify(now));
      return now;
    });
  const slot = (change: Partial<Asked["slot"]>) => set({ slot: { ...asked.slot, ...change } });
  const add = useMutation({
    mutationFn: () => answer(api.POST("/api/students", { body: { ...asked, id: id.current } })),
    onSuccess: async (card) => {
      id.current = ulid();
      sessionStorage.removeItem(draft);
      await queries.invalidateQueries({ queryKey: ["day"] });
      await go({ to: "/students/$student/ladder", params: { student: card.id } });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    add.mutate();
  };
  const instruments = useInstruments();
  const items = shelf.data?.items.filter((it) => instruments.together(it.instrument, asked.instrument)) ?? [];
  const offered = [...new Set(items.map((it) => it.book))];
  const books = asked.books ?? [];
  const toggle = (b: string) =>
    set({ books: books.includes(b) ? books.filter((x) => x !== b) : [...books, b], begin: "" });
  const units = items.filter(
    (it, i) => it.strand === "book" && it.book === books[0] && items.findIndex((o) => o.unit === it.unit) <= i,
  );
  const firstOfUnit = units.filter((it, i) => units.findIndex((o) => o.unit === it.unit) === i);
  const before = items.some((it) => it.unit === "Before the first book");
  return (
    <form
      onSubmit={submit}
      aria-label={say("studio.newStudent")}
      className="grid grid-cols-2 gap-3 self-start rounded bg-raised p-4 font-[580]"
    >
      <h2 className="col-span-2 text-large">{say("studio.newStudent")}</h2>
      <label>
        {say("studio.firstName")}
        <input
          name="firstName"
          required
          maxLength={100}
          className={field}
          value={asked.firstName}
          onChange={(e) => set({ firstName: e.target.value })}
        />
      </label>
      <label>
        {say("studio.familyName")}
        <input
          name="familyName"
          maxLength={100}
          className={field}
          value={asked.familyName}
          onChange={(e) => set({ familyName: e.target.value })}
        />
      </label>
      <BirthFields birth={asked} className={field} set={set} />
      <PickInstrument
        name="instrument"
        className={field}
        value={asked.instrument}
        set={(instrument) => set({ instrument, books: [], begin: "" })}
      />
      <SlotFields slot={asked.slot} className={field} set={slot} />
      <label className="col-span-2">
        {say("studio.practiceSheetsGo")}
        <input
          name="contact"
          type="email"
          multiple
          maxLength={400}
          placeholder={say("studio.guardiansAddressTwoLaterIf")}
          className={field}
          value={asked.contact ?? ""}
          onChange={(e) => set({ contact: e.target.value })}
        />
      </label>
      <fieldset className="col-span-2">
        <legend>{say("studio.booksCollections")}</legend>
        {offered.map((b) => (
          <label key={b} className="flex cursor-pointer items-center gap-2 py-0.5 font-normal">
            <input type="checkbox" checked={books.includes(b)} onChange={() => toggle(b)} />
            {b}
          </label>
        ))}
        {shelf.data?.items.length === 0 && <OwnBooks />}
        {shelf.data && shelf.data.items.length > 0 && offered.length === 0 && (
          <p className="font-normal text-soft">
            {say("studio.nothingShelfYetBooksCan", { name: instruments.name(asked.instrument) })}
          </p>
        )}
      </fieldset>
      <label className="col-span-2">
        {say("studio.whereBegin")}
        <select name="begin" className={field} value={asked.begin} onChange={(e) => set({ begin: e.target.value })}>
          <option value="">{say("studio.atTheBeginning")}</option>
          {before && <option value="before">{say("studio.beforeFirstBook")}</option>}
          {firstOfUnit.map((it) => (
            <option key={it.id} value={it.id}>
              {it.unit}: {it.title}
            </option>
          ))}
        </select>
      </label>
      <p className="col-span-2 font-normal text-soft">{say("studio.onlyWhatPlanningNeedsKept")}</p>
      {add.error && (
        <div className="col-span-2">
          <Trouble>{add.error.message}</Trouble>
        </div>
      )}
      <Button look="main" type="submit" disabled={add.isPending} className="col-span-2">
        {say("studio.takeOn")}
      </Button>
      <First asked={{ ...asked, id: id.current }} set={set} />
    </form>
  );
}

// First shows how the student would begin: the approach for the age and the
// first rungs.
function First({ asked, set }: { asked: Asked; set: (change: Partial<Asked>) => void }) {
  const ready = asked.birthYear > 1900 && asked.slot.start !== "" && asked.slot.minutes >= 10;
  const query = useQuery({
    queryKey: ["begin", asked.birthYear, asked.birthMonth, asked.instrument, asked.books, asked.begin, asked.approach],
    queryFn: () => answer(api.POST("/api/students/preview", { body: asked })),
    enabled: ready,
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!ready || !query.data) return null;
  const { age, approach, rows, rungs, presumed, before, empty } = query.data;
  return (
    <section
      aria-label={say("studio.howWouldBegin")}
      className="col-span-2 rounded border-l-4 border-ahead bg-ground p-3"
    >
      <details className="font-normal">
        <summary className="cursor-pointer py-0.5">
          {say("studio.approach")} {asked.approach ? say("studio.yours") : say("studio.usualAt", { age })}
          {say("studio.review", {
            name: rows.find((r) => r.key === "upkeep")?.schools.find((x) => x.key === approach.upkeep)?.name,
          })}
        </summary>
        {rows.map((r) => (
          <label key={r.key} className="mt-1 flex items-center justify-between gap-2">
            <span className="flex-1">{r.asks}</span>
            <select
              className="w-40 rounded border border-line bg-raised px-1.5 py-1"
              value={approach[r.key]}
              onChange={(e) => set({ approach: { ...asked.approach, [r.key]: e.target.value } })}
            >
              {r.schools.map((x) => (
                <option key={x.key} value={x.key}>
                  {x.name}
                </option>
              ))}
            </select>
          </label>
        ))}
      </details>
      {rungs.length > 0 && (
        <>
          <h3 className="mt-2">{before ? say("studio.smallActivities") : say("studio.firstPieces")}</h3>
          <ul className="font-normal">
            {Object.entries(Object.groupBy(rungs, (r) => r.strand)).map(([strand, list = []]) => (
              <li key={strand}>
                <span className="text-soft">{strandNames[strand]}:</span> {list.map((r) => r.title).join(", ")}
              </li>
            ))}
          </ul>
        </>
      )}
      {empty && <p className="mt-2 border-l-4 border-warn pl-2 font-normal">{empty.says}</p>}
      {presumed.length > 0 && (
        <p className="mt-1 font-normal text-soft">
          {say("studio.skillsTakenGrantedFromThere", { presumed: presumed.length })}
        </p>
      )}
    </section>
  );
}
