import { useMutation, useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "@tanstack/react-router";
import { useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { hourView } from "../../api/views";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { Shown, Trouble } from "../../parts/Told";
import { useKeep } from "../../parts/useKeep";
import { WorkbenchPlaces } from "../../parts/WorkbenchPlaces";
import { type Grade, grades, longDay } from "../../parts/words";
import { say } from "../../words/say";
import { keepHour } from "./HoursScreen";

type View = Schemas["HourView"];
type Hour = Schemas["Hour"];

// HourScreen is an hour that several students share: what all can play, the plan to the minute, who plays
// when it is handed on, and afterwards one good thing each.
export function HourScreen() {
  const { hour } = useParams({ from: "/inside/workbench/hours/$hour" });
  const query = useQuery(hourView(hour));
  return <Shown query={query}>{(view) => <Planned view={view} />}</Shown>;
}

function Planned({ view }: { view: View }) {
  const { hour } = view;
  const go = useNavigate();
  const { queryKey } = hourView(hour.id);
  const mutationKey = ["hour", hour.id];
  const keep = useKeep<Hour>("hour", keepHour, undefined, {
    mutationKey,
    scope: { id: hour.id },
    // the last of several touches asks again what follows
    onSettled: () =>
      queries.isMutating({ mutationKey }) === 1 ? queries.invalidateQueries({ queryKey: ["hours"] }) : undefined,
  });
  // change keeps a change: it stands at once, so that two touches do not undo each other.
  const change = (to: Partial<Hour>) => {
    const was = queries.getQueryData<View>(queryKey)?.hour ?? hour;
    const next = { ...was, ...to };
    void queries.cancelQueries({ queryKey });
    queries.setQueryData<View>(queryKey, (was) => was && { ...was, hour: next });
    keep.keep(next, was);
  };
  const drop = useMutation({
    mutationFn: () =>
      answer(api.DELETE("/api/hours/{hour}", { params: { path: { hour: hour.id } }, body: { was: hour } })),
    onSuccess: () => go({ to: "/workbench/hours" }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["hours"] }),
  });
  const tunes = hour.tunes.length > 0 ? hour.tunes : view.tunes.map((t) => t.tune); // what is proposed, at first
  const nameOf = (id: string) => view.players.find((p) => p.student === id)?.name ?? "";
  const names = (ids: string[]) => ids.map(nameOf).join(", ");
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <WorkbenchPlaces />
      <div className="my-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 className="text-head">{hour.name}</h1>
        <p className="text-soft">
          {longDay(hour.day)}
          {hour.start && `, ${hour.start}`}, {say("count.minute", { n: hour.minutes })},{" "}
          {say("count.student", { n: view.players.length })}
        </p>
        <span className="ml-auto flex gap-2 print:hidden">
          <Button onClick={() => window.print()}>{say("hours.print")}</Button>
          <Button look="quiet" onClick={() => drop.mutate()}>
            {say("hours.remove")}
          </Button>
        </span>
      </div>
      {keep.asked}
      {drop.error && <Trouble>{drop.error.message}</Trouble>}
      <div className="grid items-start gap-5 lg:grid-cols-[1fr_360px] print:block">
        <div className="min-w-0">
          <section aria-label={say("hours.thePlan")} className="rounded bg-raised px-4 py-2">
            <ol className="divide-y divide-faint">
              {view.plan.map((b) => (
                <li key={b.kind} className="grid grid-cols-[4.2rem_1fr_auto] gap-x-3 py-2">
                  <span className="text-soft">
                    {say("parts.minutesShort", { n: b.from })}{" "}
                    <b className="block text-[17px] font-[650] text-ink">
                      {say("parts.minutesShort", { n: b.minutes })}
                    </b>
                  </span>
                  <div>
                    <h2>{b.name}</h2>
                    <ul className="list-disc pl-5">
                      {b.how.map((line) => (
                        <li key={line}>{line}</li>
                      ))}
                    </ul>
                    <p className="text-soft">{b.why}</p>
                  </div>
                  {!["through", "good"].includes(b.kind) && (
                    <button
                      type="button"
                      aria-label={say("hours.leaveOut", { name: b.name })}
                      onClick={() => change({ left: [...hour.left, b.kind] })}
                      className="h-7 w-7 rounded border border-line hover:bg-faint print:hidden"
                    >
                      ×
                    </button>
                  )}
                </li>
              ))}
            </ol>
            {hour.left.length > 0 && (
              <Button look="quiet" className="print:hidden" onClick={() => change({ left: [] })}>
                {say("hours.putBackWhatWasLeft")}
              </Button>
            )}
          </section>
          {view.schedule && <HandedOn view={view} schedule={view.schedule} change={change} />}
          {view.trouble && (
            <label className="mt-4 block rounded bg-raised px-4 py-3">
              {view.trouble}
              <input
                type="number"
                min={1}
                max={2000}
                aria-label={say("hours.beatsTune")}
                defaultValue={hour.beats || ""}
                onBlur={(e) => change({ beats: Number(e.target.value) || 0, each: 0 })}
                className={field}
              />
            </label>
          )}
        </div>
        <div className="grid gap-4">
          <section aria-label={say("hours.whatTheyCanPlay")} className="rounded bg-raised px-4 py-3 print:hidden">
            <h2>{say("hours.whatTheyCanPlay")}</h2>
            <p className="text-soft">{say("hours.secureFreshMemoryEachFirst")}</p>
            <ul className="mt-1.5 grid gap-1">
              {view.common.map((t) => (
                <li key={t.tune}>
                  <label className="flex items-start gap-2 py-0.5">
                    <input
                      type="checkbox"
                      className="mt-1"
                      checked={tunes.includes(t.tune)}
                      onChange={() =>
                        change({
                          beats: 0,
                          each: 0,
                          tunes: tunes.includes(t.tune) ? tunes.filter((k) => k !== t.tune) : [...tunes, t.tune],
                        })
                      }
                    />
                    <span>
                      <b className="font-[620]">{t.title}</b>{" "}
                      <span className="text-soft">
                        {t.missing.length === 0
                          ? say("hours.all")
                          : t.missing.length < t.who.length
                            ? say("hours.without", { names: names(t.missing) })
                            : say("hours.only", { names: names(t.who.map((w) => w.student)) })}
                        {t.keys.length > 1 && say("hours.inKeys", { keys: t.keys.join(", ") })}
                      </span>
                    </span>
                  </label>
                </li>
              ))}
              {view.common.length === 0 && (
                <li className="text-soft">{say("hours.nothingYetGameWithoutInstruments")}</li>
              )}
            </ul>
          </section>
          <section aria-label={say("hours.whoStandsWhere")} className="rounded bg-raised px-4 py-3">
            <h2>{say("hours.whoStandsWhere")}</h2>
            <ol className="mt-1 grid gap-2">
              {view.players.map((p, i) => (
                <li key={p.student}>
                  <p className="flex items-center gap-2">
                    <b className="font-[620]">
                      {i + 1}. {p.name}
                    </b>
                    <span className="text-soft">
                      {p.age}, {p.plays}
                    </span>
                    {i > 0 && (
                      <button
                        type="button"
                        aria-label={say("hours.onePlaceForward", { name: p.name })}
                        onClick={() => change({ students: swapped(hour.students, i) })}
                        className="ml-auto h-7 w-7 rounded border border-line hover:bg-faint print:hidden"
                      >
                        ↑
                      </button>
                    )}
                  </p>
                  <label className="flex items-center gap-2 text-soft">
                    <span className="sr-only">{say("hours.formOf", { name: p.name })}</span>
                    <select
                      value={hour.forms?.[p.student] ?? ""}
                      onChange={(e) => {
                        const { [p.student]: _, ...others } = hour.forms ?? {};
                        change({ forms: e.target.value ? { ...others, [p.student]: e.target.value } : others });
                      }}
                      className="rounded border border-line bg-raised px-1.5 py-1 print:hidden"
                    >
                      <option value="">{say("hours.asItIs")}</option>
                      <option value="easier">{say("hours.easier")}</option>
                      <option value="harder">{say("hours.harder")}</option>
                    </select>
                    {hour.forms?.[p.student] === "easier"
                      ? p.easier
                      : hour.forms?.[p.student] === "harder"
                        ? p.harder
                        : ""}
                  </label>
                </li>
              ))}
            </ol>
            <label className="mt-2 flex items-center gap-2 print:hidden">
              <input type="checkbox" checked={hour.sitOut} onChange={() => change({ sitOut: !hour.sitOut })} />
              {say("hours.twoChancesThenSitOut")}
            </label>
          </section>
          <Good view={view} change={change} />
        </div>
      </div>
    </main>
  );
}

function swapped(list: string[], at: number) {
  const out = [...list];
  [out[at - 1], out[at]] = [out[at] as string, out[at - 1] as string];
  return out;
}

type HandedProps = { view: View; schedule: Schemas["Schedule"]; change: (to: Partial<Hour>) => void };

// HandedOn shows who plays when: a row a round, each turn as long as it lasts.
function HandedOn({ view, schedule, change }: HandedProps) {
  const name = (player: number) => view.players[player]?.name ?? "";
  const place = (beat: number) => {
    const bar = Math.floor(beat / schedule.bar) + 1;
    const of = (beat % schedule.bar) + 1;
    return of === 1 ? say("hours.bar", { bar }) : say("hours.barBeat", { bar, of });
  };
  return (
    <section aria-label={say("hours.handedOn")} className="mt-4 rounded bg-raised px-4 py-3">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2>{say("hours.handedOn2", { title: view.tunes[0]?.title })}</h2>
        <p className="text-soft">
          {say("hours.beatsPlayersRoundTakesSeconds", {
            beats: schedule.beats,
            players: schedule.players,
            amount: Math.round(view.seconds),
          })}
        </p>
      </div>
      <div className="mt-1 flex flex-wrap items-center gap-1.5 print:hidden">
        {say("hours.every")}
        {schedule.suits.map((s) => (
          <button
            key={s.each}
            type="button"
            aria-pressed={s.each === schedule.each}
            onClick={() => change({ each: s.each })}
            className={`rounded border px-2.5 py-1 font-[580] ${s.each === schedule.each ? "border-ink bg-ink text-raised" : "border-line hover:bg-faint"}`}
          >
            {say("count.beat", { n: s.each })}
          </button>
        ))}
        <label className="flex items-center gap-1.5">
          {say("hours.or")}
          <input
            type="number"
            min={1}
            max={64}
            aria-label={say("hours.beatsTurn")}
            key={schedule.each}
            defaultValue={schedule.each}
            onBlur={(e) => Number(e.target.value) !== schedule.each && change({ each: Number(e.target.value) })}
            className="w-16 rounded border border-line bg-raised px-2 py-1"
          />
        </label>
      </div>
      <p className="mt-1.5">
        {say("hours.everyBeatsAfterRoundsEach", { each: schedule.each, all: schedule.all })}
        {schedule.moves &&
          say("hours.playersPassagesFallTogetherAfter", {
            value: schedule.after === 1 ? say("hours.eachRound") : say("hours.everyRounds", { after: schedule.after }),
          })}{" "}
        {say("hours.allOthersGoFingering")}
      </p>
      <ol className="mt-2 grid gap-2">
        {schedule.rounds.map((r, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: rounds stand in order and do not move
          <li key={i} className="min-w-0 break-inside-avoid">
            <p className="text-soft">{say("hours.roundStarts", { n: i + 1, name: name(r.starts) })}</p>
            <div className="flex gap-px overflow-hidden rounded">
              {r.turns.map((t) => (
                <span
                  key={t.from}
                  title={say("hours.turn", { name: name(t.player), from: place(t.from), to: place(t.to - 1) })}
                  style={{ flexGrow: t.to - t.from, flexBasis: 0 }}
                  className={`min-w-0 overflow-hidden px-1 py-1 text-center font-[620] ${t.player % 2 === 0 ? "bg-now-tint" : "bg-keep-tint"}`}
                >
                  <span className="block truncate">{name(t.player)}</span>
                  <span className="block truncate text-[13px] font-[450] text-soft">{place(t.from)}</span>
                </span>
              ))}
            </div>
          </li>
        ))}
      </ol>
    </section>
  );
}

// Good takes afterwards one good thing each, and how the tune went, as facts of each student.
function Good({ view, change }: { view: View; change: (to: Partial<Hour>) => void }) {
  const { hour } = view;
  const [said, setSaid] = useState<Record<string, string>>({});
  const [went, go] = useState<Record<string, Grade | "">>({});
  const told = () => {
    for (const p of view.players) {
      const text = said[p.student]?.trim();
      const grade = went[p.student];
      if (text) tell(p.student, { kind: "went_well", text, ...(p.rung && { rung: p.rung }) });
      if (grade && p.rung) tell(p.student, { kind: "heard", rung: p.rung, grade });
    }
    change({ marked: true });
  };
  if (hour.marked) return <p className="rounded bg-keep-tint px-4 py-3">{say("hours.wasGivenWhatWasGood")}</p>;
  if (hour.day > view.today) return null;
  return (
    <section aria-label={say("hours.afterwards")} className="rounded bg-raised px-4 py-3 print:hidden">
      <h2>{say("hours.afterwardsOneGoodThingEach")}</h2>
      <div className="mt-1.5 grid gap-2">
        {view.players.map((p) => (
          <label key={p.student}>
            {p.name}
            <span className="flex gap-2">
              <input
                maxLength={200}
                value={said[p.student] ?? ""}
                onChange={(e) => setSaid({ ...said, [p.student]: e.target.value })}
                className={field}
              />
              {p.rung && (
                <select
                  aria-label={say("hours.howWentWith", { name: p.name })}
                  value={went[p.student] ?? ""}
                  onChange={(e) => go({ ...went, [p.student]: e.target.value as Grade | "" })}
                  className={field}
                >
                  <option value="">{say("hours.howWent")}</option>
                  {Object.entries(grades).map(([key, name]) => (
                    <option key={key} value={key}>
                      {name}
                    </option>
                  ))}
                </select>
              )}
            </span>
          </label>
        ))}
        <Button look="main" disabled={!Object.values(said).some((s) => s.trim())} onClick={told}>
          {say("hours.saveEachStudent")}
        </Button>
      </div>
    </section>
  );
}
