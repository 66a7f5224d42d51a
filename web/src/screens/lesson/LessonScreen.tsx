import { useQuery } from "@tanstack/react-query";
import { useParams, useSearch } from "@tanstack/react-router";
import { useLayoutEffect, useState } from "react";
import { studioNow, useSeconds } from "../../api/clock";
import { markPast, tell } from "../../api/outbox";
import { useEcho } from "../../api/useEcho";
import { lessonView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Given } from "../../parts/Given";
import { Granted } from "../../parts/Granted";
import { useKeys } from "../../parts/keys";
import { Shown } from "../../parts/Told";
import { clock, longDay, namedDay, timeOfDay } from "../../parts/words";
import { say } from "../../words/say";
import { Arrange } from "./Arrange";
import { Asked, Tried } from "./Asked";
import { Cancel, Off } from "./Cancel";
import { Closed } from "./Closed";
import { Minutes } from "./Minutes";
import { Noted } from "./Noted";
import { Now } from "./Now";
import { Overview } from "./Overview";
import { PaceNote } from "./PaceNote";
import { Pain, Quick, Seen } from "./Seen";
import { Taught } from "./Taught";
import { Today } from "./Today";
import { blockNames, type LessonView } from "./view";
import { Write } from "./Write";

// LessonScreen: minutes to scale at the left, one block large in the middle,
// what was noted and what comes at the right.
export function LessonScreen() {
  const { student } = useParams({ from: "/inside/students/$student/lesson" });
  const { day } = useSearch({ from: "/inside/students/$student/lesson" });
  const query = useQuery(lessonView(student, day));
  return (
    <Shown query={query}>
      {(view) => <Lesson key={`${student} ${day}`} view={view} fetched={query.dataUpdatedAt} />}
    </Shown>
  );
}

function Lesson({ view: served, fetched }: { view: LessonView; fetched: number }) {
  const view = useEcho(served, served.student.id, fetched);
  const { zone = "UTC", today = "" } = useDay().data ?? {};
  const seconds = useSeconds();
  const student = view.student.id;
  const minute = view.opened && view.today ? (seconds - new Date(view.opened).getTime() / 1000) / 60 : 0;
  const [more, markMore] = useState(false); // of a lesson that is closed
  useLayoutEffect(() => {
    markPast(student, view.late);
    return () => markPast(student);
  }, [student, view.late]);
  const [chosen, choose] = useState<string>(); // key of a block
  const blocks = view.plan.blocks;
  const open = view.state === "open" || more;
  const running = open && view.today && !more;
  const byClock = Math.max(
    0,
    blocks.findLastIndex((b) => b.start <= minute),
  );
  const found = blocks.findIndex((b) => b.key === chosen);
  const at = found >= 0 ? found : running ? byClock : 0;
  const go = (i: number) => choose(blocks[Math.max(0, Math.min(blocks.length - 1, i))]?.key);
  const block = blocks[at];
  const early = view.state === "planned" && view.day > today;
  const begin = () => {
    choose("set-up");
    const start = clock(studioNow(), zone);
    if (!view.day) tell(student, { kind: "lesson_extra", day: today, start });
    else if (early) tell(student, { kind: "lesson_moved", day: view.day, to: today, start });
    tell(student, { kind: "lesson_opened", day: early || !view.day ? today : view.day });
  };
  const [asks, ask] = useState(false); // whether what is new was taught, once
  const finish = () => {
    ask(false);
    tell(student, { kind: "lesson_closed", day: view.day });
  };
  const close = () => {
    if (more) markMore(false);
    else if (view.untaught.length > 0 && !asks) ask(true);
    else finish();
  };
  // the last mark is taken back first, that the lesson was begun at the end
  const lastMark = view.noted.findLast(({ back, fact }) => !back && (fact.by ?? "teacher") === "teacher");
  const undo = lastMark ? () => tell(student, { kind: "retracted", ref: lastMark.fact.id }) : undefined;
  const onlyBegun = lastMark?.fact.body.kind === "lesson_opened";

  useKeys({
    ArrowDown: () => go(at + 1),
    ArrowUp: () => go(at - 1),
    b: view.state === "planned" && view.day && !early ? begin : undefined,
    c: open ? close : undefined,
    u: view.state === "planned" ? undefined : undo,
  });

  return (
    <main
      data-touch
      className="grid flex-1 content-start gap-3.5 px-4 pb-3 md:grid-cols-[236px_1fr] xl:grid-cols-[236px_1fr_330px]"
    >
      <Minutes view={view} minute={running ? minute : undefined} at={at} go={go} />
      <div className="flex min-h-[560px] min-w-0 flex-col rounded bg-raised p-6">
        {view.state === "closed" && !more ? (
          <Closed view={view} undo={undo} more={view.late ? () => markMore(true) : undefined} />
        ) : (
          <>
            {view.late && (
              <p className="mb-3 rounded border-l-4 border-ahead bg-ground px-3 py-2">
                {more
                  ? say("lesson.marksTheyAreDatedLesson", { day: longDay(view.day) })
                  : say("lesson.lessonWhatMarkNowDated", { day: longDay(view.day) })}
              </p>
            )}
            <Off student={student} off={view.off} />
            {view.plan.says.map((r) => (
              <p key={r.code} className="mb-3 rounded border-l-4 border-warn bg-ground px-3 py-2">
                {r.says}
              </p>
            ))}
            {!open && chosen === undefined ? (
              <Overview view={view} go={go} />
            ) : (
              <Now key={block?.key} view={view} block={block} minute={running ? minute : undefined} />
            )}
            {!open && chosen !== undefined && <Arrange view={view} at={at} go={choose} />}
            <div className="mt-auto flex flex-wrap items-center gap-2.5 pt-5">
              {open ? (
                <>
                  <Button hint="↓" onClick={() => go(at + 1)} disabled={at === blocks.length - 1}>
                    {say("lesson.nextBlock")}
                  </Button>
                  {!asks && (
                    <Button hint="C" onClick={close}>
                      {more ? say("lesson.thatIsAll") : say("lesson.finishLesson")}
                    </Button>
                  )}
                  <Write
                    name={say("lesson.note")}
                    of={student}
                    hint="E"
                    ask={say("lesson.whatDoWantRemember")}
                    example={say("lesson.likedStorm")}
                    done={say("lesson.save")}
                    save={(text) => tell(student, { kind: "noted", text })}
                  />
                  <Write
                    name={say("lesson.family")}
                    of={student}
                    hint="."
                    ask={say("lesson.sentenceStandsSheet")}
                    example={say("lesson.singBath")}
                    done={say("lesson.onTheSheet")}
                    save={(text) => tell(student, { kind: "sheet_noted", day: view.day, text })}
                  />
                  <Button className="ml-auto" hint="U" onClick={undo} disabled={!undo}>
                    {onlyBegun ? say("lesson.notBegunAfterAll") : say("lesson.undo")}
                  </Button>
                </>
              ) : (
                <>
                  <Button
                    look={early ? "plain" : "main"}
                    className={early ? "" : "text-large"}
                    hint={early ? undefined : "B"}
                    onClick={begin}
                  >
                    {view.late
                      ? say("lesson.wasGivenMark")
                      : early
                        ? say("lesson.startLessonNow", { day: namedDay(view.day) })
                        : view.day
                          ? say("lesson.startLesson")
                          : say("lesson.startLessonNow2")}
                  </Button>
                  {view.late && <Cancel key={view.day} student={student} day={view.day} />}
                  <p className="text-soft">
                    {view.day
                      ? say("lesson.dayAtTime", {
                          day: view.today ? say("lesson.today") : longDay(view.day),
                          time: timeOfDay(view.start),
                          minutes: view.plan.minutes,
                        })
                      : say("lesson.noLessonPlannedCalendar")}
                    {early && `. ${say("lesson.startedNowInstead")}`}
                  </p>
                </>
              )}
            </div>
            {open && asks && <Taught view={view} finish={finish} />}
            {open && <Arrange view={view} at={at} go={choose} />}
          </>
        )}
      </div>
      <aside className="space-y-4 md:col-span-2 xl:col-span-1">
        {!open && <Given student={student} place="lesson" days={view.given} day={view.day} coming={view.coming} />}
        <Asked view={view} />
        <Granted student={view.student.id} skills={view.granted} />
        {view.state === "planned" && <Tried view={view} />}
        {running && block && <PaceNote student={student} block={block.key} minute={Math.floor(minute)} />}
        {open && <Seen view={view} />}
        {(open || view.ache) && <Pain view={view} />}
        {open && <Quick view={view} />}
        {view.state === "planned" && <Today view={view} />}
        <Noted view={view} zone={zone} />
        {open && blocks[at + 1] && (
          <section aria-label={say("lesson.next")}>
            <h2 className="mb-1.5">{say("lesson.next")}</h2>
            <ul className="divide-y divide-faint rounded bg-raised px-3">
              {blocks.slice(at + 1, at + 5).map((b) => (
                <li key={b.key} className="flex gap-3 py-1.5">
                  <span className="w-14 shrink-0 text-soft">{say("lesson.min", { minutes: b.minutes })}</span>
                  <span>{b.title || blockNames[b.kind]}</span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {view.plan.leftOut.length > 0 && view.state === "planned" && (
          <section aria-label={say("lesson.leftOut")}>
            <h2 className="mb-1.5">{say("lesson.leftOut")}</h2>
            {view.plan.leftOut.map((r) => (
              <p key={r.says} className="text-soft">
                {r.says}
              </p>
            ))}
          </section>
        )}
      </aside>
    </main>
  );
}
