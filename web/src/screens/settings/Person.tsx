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
import { Renewed, useKeep } from "../../parts/useKeep";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";

type View = Schemas["StudentView"];

// Person corrects what is kept of a student, and sees to pauses, to leaving, and to what
// is taken along or deleted.
export function Person({ student }: { student: string }) {
  const query = useQuery(studentView(student));
  return (
    <section aria-label={say("settings.theStudent")} className="rounded bg-raised p-4">
      <Shown query={query}>
        {(view) => (
          <>
            <Renewed key={student}>{(done, kept) => <Correct view={view} done={done} kept={kept} />}</Renewed>
            <Another key={view.student.id} view={view} />
            <Away view={view} />
            <Gone view={view} />
          </>
        )}
      </Shown>
    </section>
  );
}

function Correct({ view, done, kept }: { view: View; done: () => void; kept: boolean }) {
  const student = view.student.id;
  const [was] = useState(view.person);
  const [instrument, setInstrument] = useState(was.instrument);
  const save = useKeep<Schemas["Person"]>(
    "person",
    (body) => answer(api.PUT("/api/students/{student}", { params: { path: { student } }, body })),
    done,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const now = {
      firstName: String(form.get("firstName")),
      familyName: String(form.get("familyName")),
      birthMonth: Number(form.get("birthMonth")),
      birthYear: Number(form.get("birthYear")),
      instrument,
    };
    save.keep(now, was);
  };
  return (
    <form onSubmit={submit} aria-label={say("settings.whoItIs")} className="grid grid-cols-2 gap-2 font-[580]">
      <h2 className="col-span-2">{say("settings.whoItIs")}</h2>
      <label>
        {say("settings.firstName")}
        <input name="firstName" required maxLength={100} defaultValue={was.firstName} className={field} />
      </label>
      <label>
        {say("settings.familyName")}
        <input name="familyName" maxLength={100} defaultValue={was.familyName} className={field} />
      </label>
      <BirthFields birth={was} className={field} />
      <div className="col-span-2">
        <PickInstrument name="instrument" className={field} value={instrument} set={setInstrument} />
        {instrument !== was.instrument && (
          <p className="mt-1 font-normal text-soft">{say("settings.whatStandsLadderStaysThere")}</p>
        )}
      </div>
      {save.asked && <div className="col-span-2">{save.asked}</div>}
      <Button type="submit" disabled={save.busy} className="col-span-2">
        {say("settings.save")}
      </Button>
      {kept && (
        <p role="status" className="col-span-2 font-normal text-keep">
          {say("settings.saved")}
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
    <section aria-label={say("settings.anotherInstrument")} className="mt-4">
      <Button look="quiet" className="px-1!" aria-expanded={open} onClick={() => setOpen(!open)}>
        {say("settings.playsAnotherInstrumentToo")}
      </Button>
      {open && (
        <form onSubmit={submit} className="mt-2 grid grid-cols-2 gap-2 font-[580]">
          <div className="col-span-2">
            <PickInstrument name="another" className={field} value={instrument} set={setInstrument} />
          </div>
          <SlotFields slot={{ ...view.student.slot, start: "16:00", minutes: 30 }} className={field} />
          <p className="col-span-2 font-normal text-soft">{say("settings.ladderLessonsSheetItsOwn")}</p>
          {add.error && (
            <div className="col-span-2">
              <Trouble>{add.error.message}</Trouble>
            </div>
          )}
          <Button type="submit" disabled={add.isPending} className="col-span-2">
            {say("settings.takeOnForIt", { firstName: view.student.firstName })}
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
    <section aria-label={say("settings.lessons")} className="mt-5">
      <h2>{say("settings.lessons")}</h2>
      <p className="my-1 text-soft">
        {now
          ? now.left
            ? say("settings.hasLeftEverythingNotedStays", { name })
            : say("settings.pauses", {
                name,
                value: now.to
                  ? ` ${say("settings.until2", { day: longDay(now.to) })}`
                  : say("settings.untilFurtherNotice"),
              })
          : say("settings.comesEveryWeek", { name })}
      </p>
      {coming.map((a) => (
        <p key={a.from} className="my-1 flex items-center gap-2">
          <span className="flex-1">
            {a.left
              ? say("settings.leavesFrom", { day: longDay(a.from) })
              : say("settings.pausesFrom", { day: longDay(a.from) })}
            {a.to && ` ${say("settings.until2", { day: longDay(a.to) })}`}
          </span>
          <Button onClick={() => tell(student, { kind: "returned", day: a.from })}>{say("settings.notSo")}</Button>
        </p>
      ))}
      <div className="flex flex-wrap gap-2">
        {now ? (
          <Button look="main" onClick={() => tell(student, { kind: "returned", day: today })}>
            {now.left ? say("settings.isBack", { name }) : say("settings.pauseOver")}
          </Button>
        ) : (
          <>
            <Button aria-expanded={pausing} onClick={() => setPausing(!pausing)}>
              {say("settings.pause")}
            </Button>
            <Button
              onClick={() =>
                offerBack(say("settings.hasLeft2", { name }), student, tell(student, { kind: "left", day: today }))
              }
            >
              {say("settings.hasLeft", { name })}
            </Button>
          </>
        )}
      </div>
      {pausing && (
        <form onSubmit={pause} className="mt-2 grid grid-cols-2 gap-2 font-[580]">
          <label>
            {say("settings.from2")}
            <input name="from" type="date" required defaultValue={today} className={field} />
          </label>
          <label>
            {say("settings.until")}
            <input name="until" type="date" className={field} />
          </label>
          <p className="col-span-2 font-normal text-soft">{say("settings.withoutLastDayLastsUntil")}</p>
          <Button type="submit" className="col-span-2">
            {say("settings.pauseLessons")}
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
    `${say("count.mark", { n: n.facts })}, ${say("count.document", { n: n.documents })}, ${say("count.link", { n: n.links })}, ${say("count.letter", { n: n.letters })}`;
  if (receipt)
    return (
      <section
        aria-label={say("settings.deleted")}
        role="status"
        className="mt-5 rounded border-l-4 border-warn bg-ground p-3"
      >
        <p className="mb-2">
          {say("settings.deletedGoodReceiptNamesNobody", { what: what(receipt.deleted), receipt: receipt.receipt })}
        </p>
        <Button onClick={leave}>{say("settings.toTheStudio")}</Button>
      </section>
    );
  return (
    <section aria-label={say("settings.allKept")} className="mt-5">
      <h2>{say("settings.allKept")}</h2>
      <p className="my-1 text-soft">{what(view.kept)}.</p>
      <div className="flex flex-wrap items-center gap-2">
        <a
          className="rounded border border-ink px-4 py-2 font-[620] hover:bg-faint"
          href={`/api/students/${student}/export`}
          download
        >
          {say("settings.takeCopy")}
        </a>
        <Button look="quiet" aria-expanded={asking} onClick={() => ask(!asking)}>
          {say("settings.deleteGood")}
        </Button>
      </div>
      {asking && (
        <form onSubmit={submit} className="mt-2 space-y-2 rounded border-l-4 border-warn bg-ground p-3">
          <p>{say("settings.everyMarkPlanSheetLetter", { name })}</p>
          <label className="block font-[580]">
            {say("settings.writeGo", { name })}
            <input name="name" required autoComplete="off" className={field} />
          </label>
          {erase.error && <Trouble>{erase.error.message}</Trouble>}
          <Button type="submit" disabled={erase.isPending}>
            {say("settings.deleteGood2", { name })}
          </Button>
        </form>
      )}
    </section>
  );
}
