import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "@tanstack/react-router";
import { type FormEvent, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { eventView } from "../../api/views";
import { Button } from "../../parts/Button";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { useKeep } from "../../parts/useKeep";
import { longDay, shortDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { keepEvent, kinds } from "./DatesScreen";

type View = Schemas["EventView"];
type Entry = Schemas["ListingView"];
type Event = Schemas["Event"];

// DateScreen plans a day on which students play before others: its programme, how each piece stands for
// it, and how long it lasts.
export function DateScreen() {
  const { event } = useParams({ from: "/inside/studio/dates/$event" });
  const [earlier, setEarlier] = useState(0);
  const query = useQuery({ ...eventView(event, earlier), placeholderData: keepPreviousData });
  return <Shown query={query}>{(view) => <Plan view={view} earlier={earlier} setEarlier={setEarlier} />}</Shown>;
}

const lasts = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;

// shown is a programme with a change that the server has not answered yet.
function shown(was: View, event: Event) {
  const all = [...was.entries, ...was.choices];
  const entries = event.entries.flatMap((e) => {
    const one = all.find((x) => x.rung === e.rung);
    return one ? [{ ...one, seconds: e.seconds, lasts: e.seconds || one.lasts }] : [];
  });
  return { event, entries, choices: all.filter((x) => !entries.some((e) => e.rung === x.rung)) };
}

type PlanProps = { view: View; earlier: number; setEarlier: (weeks: number) => void };

function Plan({ view, earlier, setEarlier }: PlanProps) {
  const { event } = view;
  const go = useNavigate();
  const [dragged, drag] = useState<string>();
  const over = view.event.day < view.today;
  const { queryKey } = eventView(event.id, earlier);
  const mutationKey = ["event", event.id];
  const keep = useKeep<Event>("concert", keepEvent, undefined, {
    mutationKey,
    scope: { id: event.id },
    // the last of several touches asks again what follows
    onSettled: () => (queries.isMutating({ mutationKey }) === 1 ? queries.invalidateQueries() : undefined),
  });
  // change keeps a change: it stands at once, so that two touches do not undo each other.
  const change = (to: Partial<Event>) => {
    const was = queries.getQueryData<View>(queryKey)?.event ?? event;
    const next = { ...was, ...to };
    void queries.cancelQueries({ queryKey });
    queries.setQueryData<View>(queryKey, (was) => was && { ...was, ...shown(was, next) });
    keep.keep(next, was);
  };
  const drop = useMutation({
    mutationFn: () =>
      answer(api.DELETE("/api/events/{event}", { params: { path: { event: event.id } }, body: { was: event } })),
    onSuccess: () => go({ to: "/studio/dates" }),
    onSettled: () => queries.invalidateQueries(),
  });
  const plain = (list: Entry[]) => list.map(({ student, rung, seconds }) => ({ student, rung, seconds }));
  const length = (rung: string, text: string) => {
    const [minutes = 0, seconds = 0] = text.split(":").map(Number);
    const all = minutes * 60 + seconds;
    if (Number.isFinite(all))
      change({ entries: plain(view.entries.map((e) => (e.rung === rung ? { ...e, seconds: all } : e))) });
  };
  const move = (rung: string, to: number) => {
    const at = view.entries.findIndex((e) => e.rung === rung);
    const one = view.entries[at];
    if (!one || to < 0 || to >= view.entries.length || to === at) return;
    const list = view.entries.filter((e) => e.rung !== rung);
    list.splice(to, 0, one);
    change({ entries: plain(list), placed: true });
  };
  const risky = view.entries.filter((e) => e.ready.state === "at-risk");
  const best = view.entries.every((e, i) => e.rung === view.order[i]);
  const players = new Set(view.entries.map((e) => e.student)).size;
  return (
    <main className="grid flex-1 content-start gap-6 px-4 pt-3 pb-6 lg:grid-cols-[1fr_340px] print:block print:p-0">
      <section aria-label={say("dates.programme")} className="min-w-0">
        <StudioPlaces />
        <h1 className="mt-3 text-head print:text-center print:text-huge">{event.name}</h1>
        <p className="mb-3 text-soft print:text-center print:text-ink">
          {longDay(view.day)}
          {event.start && `, ${timeOfDay(event.start)}`}
          {event.place && `, ${event.place}`}
          <span className="screen-only">
            {" "}
            · {kinds[event.kind]}
            {players > 0 &&
              say("dates.playersPiecesAboutMinutes", {
                players,
                entries: view.entries.length,
                n: Math.max(1, Math.round(view.seconds / 60)),
              })}
          </span>
        </p>
        {earlier !== 0 && (
          <p role="status" className="screen-only mb-3 rounded border-l-4 border-now bg-now-tint px-3 py-2">
            {say("dates.ifWere", { day: longDay(view.day) })}{" "}
            {risky.length === 0
              ? say("dates.everyPiece")
              : say("dates.piecesWould", { risky: risky.length, entries: view.entries.length })}{" "}
            {risky.length === 0 ? say("dates.wouldTime") : say("dates.comeTooLatePerformanceReady")}
          </p>
        )}
        <ol className="divide-y divide-faint rounded bg-raised px-4 print:divide-y-0">
          {view.entries.map((e, i) => (
            <li
              key={e.rung}
              draggable={!over}
              onDragStart={() => drag(e.rung)}
              onDragOver={(x) => x.preventDefault()}
              onDrop={() => dragged && move(dragged, i)}
              className="grid grid-cols-[2rem_1fr_auto] items-baseline gap-x-3 py-2 print:grid-cols-[1fr_auto]"
            >
              <span className="screen-only text-soft">{i + 1}</span>
              <span>
                <b className="font-[650]">{e.title}</b>
                {e.composer && <span className="text-soft">, {e.composer}</span>}
                <br className="screen-only" />
                <span className="screen-only text-soft">
                  {e.name}, {e.age} · {e.plays}
                  {e.key && ` · ${e.key}`}
                  {e.mood && ` · ${e.mood}`}
                  {" · "}
                  <input
                    key={e.lasts}
                    aria-label={say("dates.minutesSeconds", { title: e.title })}
                    defaultValue={lasts(e.lasts)}
                    onBlur={(x) => x.target.value !== lasts(e.lasts) && length(e.rung, x.target.value)}
                    className="w-14 rounded border border-line bg-ground px-1.5 text-right"
                  />
                </span>
                {!over && <Stands entry={e} day={view.day} />}
              </span>
              <span className="screen-only flex gap-1">
                <Button
                  look="quiet"
                  aria-label={say("dates.earlier", { title: e.title })}
                  onClick={() => move(e.rung, i - 1)}
                >
                  ↑
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("dates.later", { title: e.title })}
                  onClick={() => move(e.rung, i + 1)}
                >
                  ↓
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("dates.withdraw", { title: e.title })}
                  onClick={() => change({ entries: plain(view.entries.filter((x) => x.rung !== e.rung)) })}
                >
                  ×
                </Button>
              </span>
              <span className="hidden print:inline">{e.name}</span>
            </li>
          ))}
          {view.entries.length === 0 && <li className="py-3 text-soft">{say("dates.chooseBesideWhatPlayed")}</li>}
        </ol>
        {keep.asked}
        {drop.error && <Trouble>{drop.error.message}</Trouble>}
        {view.entries.length > 1 && (
          <p className="screen-only mt-2 flex flex-wrap items-center gap-3 text-soft">
            {!event.placed
              ? say("dates.bestOrderFound")
              : say("dates.yourOrder", { value: best ? say("dates.whichGoodAny") : "" })}{" "}
            {view.why.map((r) => r.says).join(" ")}
            {event.placed && <Button onClick={() => change({ placed: false })}>{say("dates.putBestOrder")}</Button>}
          </p>
        )}
      </section>
      <aside aria-label={say("dates.plan")} className="screen-only space-y-4">
        {over ? (
          <Went event={event} keep={(went) => change({ went })} />
        ) : (
          <section className="rounded bg-raised p-4">
            <label className="block">
              {say("dates.whatIfWere")}
              <select
                className="ml-2 rounded border border-line bg-ground px-2 py-1.5"
                value={earlier}
                onChange={(e) => setEarlier(Number(e.target.value))}
              >
                <option value={0}>{say("dates.itsDay")}</option>
                {[1, 2, 3, 4].map((n) => (
                  <option key={n} value={n}>
                    {say("dates.weeksEarlier", { n })}
                  </option>
                ))}
                {[1, 2, 4].map((n) => (
                  <option key={-n} value={-n}>
                    {say("dates.weeksLater", { n })}
                  </option>
                ))}
              </select>
            </label>
            {earlier !== 0 && (
              <Button
                className="mt-2"
                onClick={() => {
                  change({ day: view.day });
                  setEarlier(0);
                }}
              >
                {say("dates.moveItTo", { day: shortDay(view.day) })}
              </Button>
            )}
          </section>
        )}
        {!over && (
          <section aria-label={say("dates.whatCouldPlayed")} className="rounded bg-raised p-4">
            <h2>{say("dates.whatCouldPlayed")}</h2>
            {Object.entries(Object.groupBy(view.choices, (c) => c.student)).map(([student, list = []]) => (
              <details key={student} className="border-t border-faint py-1">
                <summary className="cursor-pointer py-0.5">
                  {list[0]?.name} <span className="text-soft">{list[0]?.plays}</span>
                </summary>
                <ul>
                  {list.map((c) => (
                    <li key={c.rung} className="flex items-center gap-2 py-0.5">
                      <span className="flex-1">
                        {c.title} <span className="text-soft">{stands[c.ready.state]}</span>
                      </span>
                      <Button
                        look="quiet"
                        className="px-2! py-0.5!"
                        aria-label={say("dates.play", { title: c.title, name: c.name })}
                        onClick={() => change({ entries: plain([...view.entries, c]) })}
                      >
                        +
                      </Button>
                    </li>
                  ))}
                </ul>
              </details>
            ))}
            {view.choices.length === 0 && <p className="text-soft">{say("dates.nobodyHasAnotherPieceHand")}</p>}
          </section>
        )}
        <p className="flex flex-wrap gap-3">
          <Button onClick={() => window.print()}>{say("dates.printProgramme")}</Button>
          <Button look="quiet" disabled={drop.isPending} onClick={() => drop.mutate()}>
            {say("dates.remove")}
          </Button>
        </p>
      </aside>
    </main>
  );
}

const stands: Record<Entry["ready"]["state"], string> = {
  polished: say("dates.performanceReadyState"),
  polish: say("dates.learntState"),
  comes: say("dates.inHand"),
  "at-risk": say("dates.handLate"),
  unknown: say("dates.inHand"),
};

// Stands says how a piece stands for the day, and from when on it is rehearsed.
function Stands({ entry: e, day }: { entry: Entry; day: string }) {
  const rest = say("dates.lessonsUntilThenRehearsedFrom", { lessons: e.lessons, day: shortDay(e.rehearse) });
  const { state, by = day, mid, high } = e.ready;
  const says = {
    polished: say("dates.performanceReady"),
    polish: say("dates.learntToMakeReady"),
    comes: say("dates.secureGoesAbout", { day: shortDay(by), n: mid && shortDay(mid) }),
    "at-risk": say("dates.shouldLearntPerformanceReady", {
      day: shortDay(by),
      value: high ? say("dates.mayTakeUntil", { day: shortDay(high) }) : say("dates.noLessonsAreToldSo"),
    }),
    unknown: say("dates.notBegunYet"),
  }[state];
  return (
    <span className={`screen-only block ${state === "at-risk" ? "text-warn" : ""}`}>
      {says} <span className="text-soft">{rest}.</span>
    </span>
  );
}

// Went keeps how it went.
function Went({ event, keep }: { event: Event; keep: (went: string) => void }) {
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    keep(String(new FormData(e.currentTarget).get("went")).trim());
  };
  return (
    <form onSubmit={submit} className="rounded bg-raised p-4">
      <label className="block">
        <b className="font-[650]">{say("dates.howDidGo")}</b>
        <textarea
          name="went"
          rows={4}
          maxLength={2000}
          defaultValue={event.went}
          className="mt-1 block w-full rounded border border-line bg-ground px-2 py-1.5"
        />
      </label>
      <p className="my-1 text-soft">{say("dates.eachPieceLessonAsksHow")}</p>
      <Button type="submit">{say("dates.save")}</Button>
    </form>
  );
}
