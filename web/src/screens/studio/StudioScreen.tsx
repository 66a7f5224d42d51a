import { useMutation } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import type { FormEvent } from "react";
import { answer, api, forgetKept, queries, type Schemas } from "../../api/client";
import { useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { HomeForm } from "../../parts/HomeForm";
import { setLetterKeys, useLetterKeys } from "../../parts/letterKeys";
import { prefs, setPref } from "../../parts/prefs";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { say } from "../../words/say";
import { NewStudent } from "./NewStudent";
import { RhythmWords } from "./RhythmWords";
import { Roster } from "./Roster";
import { StudentList } from "./StudentList";

// StudioScreen: the students, a new one, the demo's clock, and the way out.
export function StudioScreen() {
  const query = useDay();
  const go = useNavigate();
  const leave = useMutation({
    mutationFn: () => answer(api.POST("/api/sign-out")),
    onSuccess: async () => {
      queries.clear();
      await forgetKept();
      await go({ to: "/sign-in" });
    },
  });
  return (
    <Shown query={query}>
      {(day) => (
        <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-6 px-4 py-3 lg:grid-cols-[1fr_380px]">
          <section aria-label={say("studio.students")} className="min-w-0">
            <StudioPlaces />
            <div className="flex items-center justify-between py-3">
              <h1 className="text-head">{day.studio}</h1>
              <Button onClick={() => leave.mutate()} disabled={leave.isPending}>
                {say("studio.signOut")}
              </Button>
            </div>
            {leave.error && <Trouble>{leave.error.message}</Trouble>}
            <StudentList students={day.students} />
            <div className="mt-6 grid grid-cols-[minmax(0,1fr)] gap-4 sm:grid-cols-2">
              <HomeForm key={JSON.stringify(day.home)} student="" home={day.home} title={say("studio.studiosPiano")} />
              <section aria-label={say("studio.calendar")} className="rounded bg-raised p-4">
                <h2>{say("studio.calendar")}</h2>
                <p className="my-1 text-soft">{say("studio.termsHolidaysLessonTimesWhat")}</p>
                <Link to="/calendar" className="font-[620] underline underline-offset-4">
                  {say("studio.seeTeachingWeek")}
                </Link>
                <h2 className="mt-4">{say("studio.mailbox")}</h2>
                <p className="my-1 text-soft">{say("studio.whatWasSentFamiliesWhen")}</p>
                <Link to="/mailbox" className="font-[620] underline underline-offset-4">
                  {say("studio.readIt")}
                </Link>
              </section>
              <section aria-label={say("studio.whatPlansRest")} className="rounded bg-raised p-4">
                <h2>{say("studio.whatPlansRest")}</h2>
                <p className="my-1 text-soft">{say("studio.skillsWithTheirWeightsSmall")}</p>
                <Link to="/numbers" className="font-[620] underline underline-offset-4">
                  {say("studio.seeThemAll")}
                </Link>
                <h2 className="mt-4">{say("studio.instruments")}</h2>
                <p className="my-1 text-soft">{say("studio.whatStudentsMayPlayAdd")}</p>
                <Link to="/instruments" className="font-[620] underline underline-offset-4">
                  {say("studio.seeThemAddOne")}
                </Link>
                <h2 className="mt-4">{say("studio.gamesStudies")}</h2>
                <p className="my-1 text-soft">{say("studio.whatLessonsDrawAwayFrom")}</p>
                <Link to="/activities" className="font-[620] underline underline-offset-4">
                  {say("studio.seeThemAddOne")}
                </Link>
              </section>
              <RhythmWords />
              <section aria-label={say("studio.studentsFromElsewhere")} className="rounded bg-raised p-4">
                <h2>{say("studio.studentsFromElsewhere")}</h2>
                <p className="my-1 text-soft">{say("studio.newProgramWithFullWeek")}</p>
                <Link to="/take-over" className="font-[620] underline underline-offset-4">
                  {say("studio.takeOverSeveralOnce")}
                </Link>
              </section>
              <Roster />
              <section aria-label={say("studio.numbersOut")} className="rounded bg-raised p-4">
                <h2>{say("studio.numbersOut")}</h2>
                <p className="my-1 text-soft">{say("studio.csvAllStudentsSpreadsheetOwn")}</p>
                <p className="flex flex-wrap gap-x-4">
                  {Object.entries(tables).map(([of, name]) => (
                    <a
                      key={of}
                      href={`/api/numbers.csv?of=${of}`}
                      download
                      className="font-[620] underline underline-offset-4 first-letter:uppercase"
                    >
                      {name}
                    </a>
                  ))}
                </p>
              </section>
              <Keys />
            </div>
            {day.demo && <DemoClock now={day.now} />}
          </section>
          <NewStudent />
        </main>
      )}
    </Shown>
  );
}

// tables are what can be saved for a spreadsheet.
const tables = {
  facts: say("studio.everythingNoted"),
  footholds: say("studio.learntPieces"),
  practice: say("studio.practiceAtHome"),
};

const choices = [
  {
    name: "hours",
    asks: say("studio.timesDay"),
    ways: [
      ["24", "16:30"],
      ["12", say("parts.pm", { time: "4:30" })],
    ],
  },
  {
    name: "week",
    asks: say("studio.firstDayWeek"),
    ways: [
      ["monday", say("studio.weeksFromMonday")],
      ["sunday", say("studio.fromSunday")],
    ],
  },
] as const;

// Keys turns single keys off on this device, for who speaks to it or touches keys unawares; and
// says how times and weeks are written.
function Keys() {
  return (
    <section aria-label={say("studio.keys")} className="rounded bg-raised p-4">
      <h2>{say("studio.keys")}</h2>
      <label className="my-1 flex items-start gap-2">
        <input
          type="checkbox"
          className="mt-1"
          checked={useLetterKeys()}
          onChange={(e) => setLetterKeys(e.target.checked)}
        />
        {say("studio.singleKeysActDeviceSmall")}
      </label>
      <h2 className="mt-3">{say("studio.howThingsAreWrittenHere")}</h2>
      {choices.map((c) => (
        <fieldset key={c.name} className="mt-1 flex min-w-0 flex-wrap items-center gap-3">
          <legend className="sr-only">{c.asks}</legend>
          {c.ways.map(([value, says]) => (
            <label key={value} className="flex items-center gap-1.5">
              <input
                type="radio"
                name={c.name}
                checked={prefs[c.name] === value}
                onChange={() => setPref(c.name, value)}
              />
              {says}
            </label>
          ))}
        </fieldset>
      ))}
    </section>
  );
}

// DemoClock moves the demo's clock; a real studio has none.
function DemoClock({ now }: { now: Schemas["DayView"]["now"] }) {
  const move = useMutation({
    mutationFn: (to: string) => answer(api.PUT("/api/clock", { body: { to } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const local = String(new FormData(e.currentTarget).get("to"));
    if (local) move.mutate(`${local}:00${now.slice(19).replace(/^\.\d+/, "")}`); // in the studio's own offset
  };
  return (
    <form onSubmit={submit} className="mt-6 flex flex-wrap items-end gap-3 rounded bg-raised p-4">
      <label className="font-[580]">
        {say("studio.demosClock")}
        <input
          type="datetime-local"
          name="to"
          key={now.slice(0, 16)}
          defaultValue={now.slice(0, 16)}
          className="mt-0.5 block rounded border border-line bg-ground px-2 py-1.5 font-normal"
        />
      </label>
      <Button type="submit" disabled={move.isPending}>
        {say("studio.moveIt")}
      </Button>
      <p className="max-w-72 text-soft">{say("studio.onlyDemoHasOneMove")}</p>
      {move.error && <Trouble>{move.error.message}</Trouble>}
    </form>
  );
}
