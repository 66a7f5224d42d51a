import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { shelfView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { weekdays } from "../../parts/dates";
import { field } from "../../parts/Field";
import { PickInstrument, useInstruments } from "../../parts/instruments";
import { SlotFields } from "../../parts/StudentFields";
import { Shown, Trouble } from "../../parts/Told";
import { say } from "../../words/say";

type Asked = Schemas["NewStudent"];
type Taken = { id: string; name: string; says: string };

// TakeOver takes on many students who are in the middle of their books, half a minute each: name,
// age and lesson, the piece each is at, and three ticks. The rest is asked in lessons.
export function TakeOver() {
  const day = useDay();
  const [taken, take] = useState<Taken[]>([]);
  const [slot, setSlot] = useState<Asked["slot"]>({ weekday: 1, start: "15:00", minutes: 30 });
  const [instrument, setInstrument] = useState("piano");
  const [book, setBook] = useState("");
  return (
    <Shown query={day}>
      {({ today, students }) => (
        <main className="grid flex-1 content-start gap-6 px-4 py-3 lg:grid-cols-[1fr_330px]">
          <section aria-label={say("studio.takeOverStudents")}>
            <h1 className="text-head">{say("studio.takeOverStudents")}</h1>
            <p className="mb-3 text-soft">{say("studio.oneAfterAnotherPieceEach")}</p>
            <One
              key={taken.length}
              year={Number(today.slice(0, 4))}
              month={Number(today.slice(5, 7))}
              slot={slot}
              instrument={instrument}
              book={book}
              keep={(asked, says) => {
                take([{ id: asked.id, name: asked.firstName, says }, ...taken]);
                setSlot({ ...asked.slot, start: after(asked.slot) });
                setInstrument(asked.instrument);
                setBook(asked.books?.[0] ?? "");
              }}
            />
          </section>
          <aside aria-label={say("studio.takenOver")} className="space-y-3">
            <h2>
              {taken.length === 0
                ? say("studio.nobodyTakenOverYet")
                : say("studio.studentsTakenOver", { taken: taken.length })}
            </h2>
            <ol className="divide-y divide-faint rounded bg-raised px-3">
              {taken.map((t) => (
                <li key={t.id} className="py-1.5">
                  <b className="font-[650]">{t.name}</b> <span className="text-soft">{t.says}</span>
                </li>
              ))}
            </ol>
            <p className="text-soft">{say("studio.studentsStudio", { students: students.length })}</p>
            <Link to="/" className="underline underline-offset-4">
              {say("studio.allToday")}
            </Link>
          </aside>
        </main>
      )}
    </Shown>
  );
}

// after is when the lesson ends: the next student's may begin there.
function after({ start, minutes }: Asked["slot"]) {
  const [h = 0, m = 0] = start.split(":").map(Number);
  const end = Math.min(h * 60 + m + minutes, 23 * 60);
  return `${String(Math.floor(end / 60)).padStart(2, "0")}:${String(end % 60).padStart(2, "0")}`;
}

type Props = {
  year: number;
  month: number;
  slot: Asked["slot"];
  instrument: string;
  book: string;
  keep: (asked: Asked, says: string) => void;
};

const ticks = [
  { outcome: "pass", says: say("parts.there") },
  { outcome: "not-yet", says: say("parts.missing") },
] as const;

function One({ year, month, slot: usual, instrument: first, book: last, keep }: Props) {
  const id = useRef(ulid());
  const [name, setName] = useState("");
  const [age, setAge] = useState(0);
  const [slot, setSlot] = useState(usual);
  const [instrument, setInstrument] = useState(first);
  const [book, setBook] = useState(last);
  const [begin, setBegin] = useState("");
  const [probes, setProbes] = useState<Record<string, string>>({});
  const instruments = useInstruments();
  const shelf = useQuery(shelfView(""));
  const items = shelf.data?.items.filter((it) => instruments.together(it.instrument, instrument)) ?? [];
  const books = [...new Set(items.filter((it) => it.strand === "book").map((it) => it.book))];
  const pieces = items.filter((it) => it.strand === "book" && it.book === book);
  const asked: Asked = {
    id: id.current,
    firstName: name,
    familyName: "",
    birthYear: year - age,
    birthMonth: month, // who is so old today; the month is put right later
    instrument,
    slot,
    books: book ? [book] : [],
    begin,
    probes,
  };
  const ready = age > 2 && begin !== "";
  const shown = useQuery({
    queryKey: ["begin", "ticks", age, instrument, book, begin],
    queryFn: () => answer(api.POST("/api/students/preview", { body: { ...asked, probes: {} } })),
    enabled: ready,
    retry: false,
  });
  const add = useMutation({
    mutationFn: () => answer(api.POST("/api/students", { body: asked })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["day"] });
      const at = pieces.find((it) => it.id === begin)?.title ?? book;
      keep(asked, `${weekdays[slot.weekday]} ${slot.start}, ${at || say("studio.noBookYet")}`);
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    add.mutate();
  };
  return (
    <form
      onSubmit={submit}
      aria-label={say("studio.oneStudent")}
      className="grid grid-cols-2 gap-3 rounded bg-raised p-4 font-[580] sm:grid-cols-3"
    >
      <label>
        {say("studio.firstName")}
        <input
          // biome-ignore lint/a11y/noAutofocus: the next student is typed at once
          autoFocus
          name="firstName"
          required
          maxLength={100}
          className={field}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <label>
        {say("studio.age")}
        <input
          name="age"
          inputMode="numeric"
          required
          pattern="[0-9]{1,2}"
          className={field}
          value={age || ""}
          onChange={(e) => setAge(Number(e.target.value) || 0)}
        />
      </label>
      <PickInstrument
        name="instrument"
        className={field}
        value={instrument}
        set={(i) => {
          setInstrument(i);
          setBook("");
          setBegin("");
        }}
      />
      <SlotFields slot={slot} className={field} set={(change) => setSlot({ ...slot, ...change })} />
      <label>
        {say("studio.book")}
        <select
          name="book"
          className={field}
          value={book}
          onChange={(e) => {
            setBook(e.target.value);
            setBegin("");
            setProbes({});
          }}
        >
          <option value="">{say("studio.noneYet")}</option>
          {books.map((b) => (
            <option key={b}>{b}</option>
          ))}
        </select>
      </label>
      <label className="sm:col-span-2">
        {say("studio.isAt")}
        <select
          name="begin"
          className={field}
          value={begin}
          disabled={book === ""}
          onChange={(e) => {
            setBegin(e.target.value);
            setProbes({});
          }}
        >
          <option value="">{say("studio.footBook")}</option>
          {pieces.map((it, i) => (
            <option key={it.id} value={it.id}>
              {i + 1} {it.title}
            </option>
          ))}
        </select>
      </label>
      {shown.data && shown.data.ticks.length > 0 && (
        <fieldset className="col-span-2 sm:col-span-3">
          <legend>{say("studio.threeTicksWhereKnow")}</legend>
          {shown.data.ticks.map((t) => (
            <p key={t.skill} className="flex items-center gap-2 border-t border-faint py-1.5 font-normal">
              <span className="flex-1 text-large">{t.name}</span>
              {ticks.map((o) => (
                <button
                  key={o.outcome}
                  type="button"
                  aria-pressed={probes[t.skill] === o.outcome}
                  aria-label={`${o.says}: ${t.name}`}
                  onClick={() => {
                    const { [t.skill]: was, ...others } = probes;
                    setProbes(was === o.outcome ? others : { ...others, [t.skill]: o.outcome });
                  }}
                  className={`min-h-9 rounded border px-3 font-[620] ${probes[t.skill] === o.outcome ? "border-ink bg-ink text-raised" : "border-line hover:bg-ground"}`}
                >
                  {o.says}
                </button>
              ))}
            </p>
          ))}
          <p className="text-soft">
            {say("studio.skillsTakenGrantedFromThere2", { presumed: shown.data.presumed.length })}
          </p>
        </fieldset>
      )}
      {add.error && (
        <div className="col-span-2 sm:col-span-3">
          <Trouble>{add.error.message}</Trouble>
        </div>
      )}
      <Button look="main" type="submit" disabled={add.isPending} className="col-span-2 sm:col-span-3">
        {say("studio.takeOverNext")}
      </Button>
    </form>
  );
}
