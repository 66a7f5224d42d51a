import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { studentView, useDay } from "../../api/views";
import { offerBack } from "../../parts/Back";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument } from "../../parts/instruments";
import { BirthFields, SlotFields, slotOf } from "../../parts/StudentFields";
import { Shown, Trouble } from "../../parts/Told";
import { longDay, plural } from "../../parts/words";

type View = Schemas["StudentView"];

// Person corrects what is kept of a student, and sees to pauses, to leaving, and to what
// is taken along or deleted.
export function Person({ student }: { student: string }) {
  const query = useQuery(studentView(student));
  return (
    <section aria-label="The student" className="rounded bg-raised p-4">
      <Shown query={query}>
        {(view) => (
          <>
            <Correct key={JSON.stringify(view.person)} view={view} />
            <Another key={view.student.id} view={view} />
            <Away view={view} />
            <Gone view={view} />
          </>
        )}
      </Shown>
    </section>
  );
}

function Correct({ view }: { view: View }) {
  const student = view.student.id;
  const [instrument, setInstrument] = useState(view.person.instrument);
  const save = useMutation({
    mutationFn: (body: Schemas["Person"]) =>
      answer(api.PUT("/api/students/{student}", { params: { path: { student } }, body })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    save.mutate({
      firstName: String(form.get("firstName")),
      familyName: String(form.get("familyName")),
      birthMonth: Number(form.get("birthMonth")),
      birthYear: Number(form.get("birthYear")),
      instrument,
    });
  };
  return (
    <form onSubmit={submit} aria-label="Who it is" className="grid grid-cols-2 gap-2 font-[580]">
      <h2 className="col-span-2">Who it is</h2>
      <label>
        First name
        <input name="firstName" required maxLength={100} defaultValue={view.person.firstName} className={field} />
      </label>
      <label>
        Family name
        <input name="familyName" maxLength={100} defaultValue={view.person.familyName} className={field} />
      </label>
      <BirthFields birth={view.person} className={field} />
      <div className="col-span-2">
        <PickInstrument name="instrument" className={field} value={instrument} set={setInstrument} />
        {instrument !== view.person.instrument && (
          <p className="mt-1 font-normal text-soft">
            What stands on the ladder stays there; park what is not for the new instrument, and choose its books below.
          </p>
        )}
      </div>
      {save.error && (
        <div className="col-span-2">
          <Trouble>{save.error.message}</Trouble>
        </div>
      )}
      <Button type="submit" disabled={save.isPending} className="col-span-2">
        Keep
      </Button>
      {save.isSuccess && (
        <p role="status" className="col-span-2 font-normal text-keep">
          Kept.
        </p>
      )}
    </form>
  );
}

// Another takes the same person on for another instrument: a ladder, lessons and a sheet of its
// own, one link for the family.
function Another({ view }: { view: View }) {
  const go = useNavigate();
  const id = useRef(ulid());
  const [open, setOpen] = useState(false);
  const [instrument, setInstrument] = useState(view.student.instrument === "piano" ? "cello" : "piano");
  const add = useMutation({
    mutationFn: (slot: Schemas["Slot"]) =>
      answer(
        api.POST("/api/students", {
          body: { ...view.person, id: id.current, instrument, slot, person: view.student.id },
        }),
      ),
    onSuccess: async (card) => {
      id.current = ulid();
      await queries.invalidateQueries({ queryKey: ["day"] });
      await go({ to: "/students/$student/settings", params: { student: card.id } });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    add.mutate(slotOf(new FormData(e.currentTarget)));
  };
  return (
    <section aria-label="Another instrument" className="mt-4">
      <Button look="quiet" className="px-1!" aria-expanded={open} onClick={() => setOpen(!open)}>
        Plays another instrument too
      </Button>
      {open && (
        <form onSubmit={submit} className="mt-2 grid grid-cols-2 gap-2 font-[580]">
          <div className="col-span-2">
            <PickInstrument name="another" className={field} value={instrument} set={setInstrument} />
          </div>
          <SlotFields slot={{ ...view.student.slot, start: "16:00", minutes: 30 }} className={field} />
          <p className="col-span-2 font-normal text-soft">
            A ladder, lessons and a sheet of its own; the family's link opens both.
          </p>
          {add.error && (
            <div className="col-span-2">
              <Trouble>{add.error.message}</Trouble>
            </div>
          )}
          <Button type="submit" disabled={add.isPending} className="col-span-2">
            Take {view.student.firstName} on for it
          </Button>
        </form>
      )}
    </section>
  );
}

// Away sets pauses, says that a student has left, and lets one come back.
function Away({ view }: { view: View }) {
  const { id: student, firstName: name } = view.student;
  const today = useDay().data?.today ?? "";
  const [pausing, setPausing] = useState(false);
  const now = view.away.find((a) => a.now);
  const coming = view.away.filter((a) => a.from > today);
  const pause = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const until = String(form.get("until"));
    tell(student, { kind: "paused", from: String(form.get("from")), ...(until && { until }) });
    setPausing(false);
  };
  return (
    <section aria-label="Lessons" className="mt-5">
      <h2>Lessons</h2>
      <p className="my-1 text-soft">
        {now
          ? now.left
            ? `${name} has left. All that was told stays here; nothing is planned.`
            : `${name} pauses${now.to ? ` until ${longDay(now.to)}` : " until further notice"}.`
          : `${name} comes every week.`}
      </p>
      {coming.map((a) => (
        <p key={a.from} className="my-1 flex items-center gap-2">
          <span className="flex-1">
            {a.left ? "leaves" : "pauses"} from {longDay(a.from)}
            {a.to && ` until ${longDay(a.to)}`}
          </span>
          <Button onClick={() => tell(student, { kind: "returned", day: a.from })}>Not so</Button>
        </p>
      ))}
      <div className="flex flex-wrap gap-2">
        {now ? (
          <Button look="main" onClick={() => tell(student, { kind: "returned", day: today })}>
            {now.left ? `${name} is back` : "The pause is over"}
          </Button>
        ) : (
          <>
            <Button aria-expanded={pausing} onClick={() => setPausing(!pausing)}>
              Pause
            </Button>
            <Button
              onClick={() => offerBack(`${name} has left.`, student, tell(student, { kind: "left", day: today }))}
            >
              {name} has left
            </Button>
          </>
        )}
      </div>
      {pausing && (
        <form onSubmit={pause} className="mt-2 grid grid-cols-2 gap-2 font-[580]">
          <label>
            From
            <input name="from" type="date" required defaultValue={today} className={field} />
          </label>
          <label>
            Until
            <input name="until" type="date" className={field} />
          </label>
          <p className="col-span-2 font-normal text-soft">Without a last day it lasts until you end it.</p>
          <Button type="submit" className="col-span-2">
            Pause the lessons
          </Button>
        </form>
      )}
    </section>
  );
}

// Gone is what is taken along, and what is deleted.
function Gone({ view }: { view: View }) {
  const { id: student, firstName: name } = view.student;
  const go = useNavigate();
  const [asking, ask] = useState(false);
  const [receipt, setReceipt] = useState<Schemas["Erasure"]>();
  const erase = useMutation({
    mutationFn: (typed: string) =>
      answer(api.DELETE("/api/students/{student}", { params: { path: { student }, query: { name: typed } } })),
    onSuccess: setReceipt,
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    erase.mutate(String(new FormData(e.currentTarget).get("name")));
  };
  const leave = async () => {
    await go({ to: "/studio" });
    queries.removeQueries({ queryKey: ["student", student] });
    await queries.invalidateQueries();
  };
  const what = (n: Schemas["Erased"]) =>
    `${plural(n.facts, "mark")}, ${plural(n.documents, "document")}, ${plural(n.links, "link")}, ${plural(n.letters, "letter")}`;
  if (receipt)
    return (
      <section aria-label="Deleted" role="status" className="mt-5 rounded border-l-4 border-warn bg-ground p-3">
        <p className="mb-2">
          Deleted for good: {what(receipt.deleted)}. Receipt {receipt.receipt}; it names nobody.
        </p>
        <Button onClick={leave}>To the studio</Button>
      </section>
    );
  return (
    <section aria-label="All that is kept" className="mt-5">
      <h2>All that is kept</h2>
      <p className="my-1 text-soft">{what(view.kept)}.</p>
      <div className="flex flex-wrap items-center gap-2">
        <a
          className="rounded border border-ink px-4 py-2 font-[620] hover:bg-faint"
          href={`/api/students/${student}/export`}
          download
        >
          Take a copy
        </a>
        <Button look="quiet" aria-expanded={asking} onClick={() => ask(!asking)}>
          Delete for good
        </Button>
      </div>
      {asking && (
        <form onSubmit={submit} className="mt-2 space-y-2 rounded border-l-4 border-warn bg-ground p-3">
          <p>
            Every mark, plan, sheet, letter and link of {name} is deleted, and nothing brings it back. The family's link
            opens nothing any more. Somebody who only stops coming has left: that keeps all.
          </p>
          <label className="block font-[580]">
            Write {name} to go on
            <input name="name" required autoComplete="off" className={field} />
          </label>
          {erase.error && <Trouble>{erase.error.message}</Trouble>}
          <Button type="submit" disabled={erase.isPending}>
            Delete {name} for good
          </Button>
        </form>
      )}
    </section>
  );
}
