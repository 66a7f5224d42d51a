import { Link } from "@tanstack/react-router";
import { tell } from "../../api/outbox";
import { Button, Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { Trouble } from "../../parts/Told";
import { longDay, ratings } from "../../parts/words";
import { say } from "../../words/say";
import { Contact, Fared, latest, onTheWay, sends, useFared, useSend } from "../week/Send";
import { blockNames, type LessonView } from "./view";

// Closed says what the lesson changed, what follows from it, and how the next one
// would go.
export function Closed({ view, undo, more }: { view: LessonView; undo?: () => void; more?: () => void }) {
  const student = view.student.id;
  const after = view.after;
  const last = view.day === view.given[0];
  return (
    <section aria-label={say("lesson.afterLesson")} className="flex flex-1 flex-col">
      <p className="font-[620] text-keep">
        {say("lesson.lessonClosed")}
        {!last && `, ${longDay(view.day)}`}
      </p>
      <h2 className="text-huge leading-tight">{say("lesson.whatChanged")}</h2>
      <ul className="mt-3 space-y-1 text-large">
        {after?.changed.map((r) => (
          <li key={r.says}>{r.says}</li>
        ))}
        {after?.changed.length === 0 && <li className="text-soft">{say("lesson.noMarkMovedPlanCarries")}</li>}
      </ul>
      <Rated view={view} />
      <div className={`mt-6 grid gap-6 lg:grid-cols-2 ${last ? "" : "hidden"}`}>
        <div>
          <h2 className="text-head">{say("lesson.whatFollows")}</h2>
          <ul className="mt-2 space-y-1">
            {after?.follows.map((r) => (
              <li key={r.says}>{r.says}</li>
            ))}
            <li>
              {after && after.sheet > 0
                ? say("lesson.practiceSheetReadySmallTasks", { sheet: after.sheet })
                : say("lesson.nothingPracticeSheetYet")}
            </li>
          </ul>
        </div>
        <div>
          <h2 className="text-head">
            {after?.next
              ? say("lesson.nextLesson", { day: longDay(after.next) })
              : say("lesson.noFurtherLessonLiesCalendar")}
          </h2>
          <ol className="mt-2 divide-y divide-faint" aria-label={say("lesson.sketchNextLesson")}>
            {after?.sketch.map((b) => (
              <li key={`${b.kind}${b.title}`} className="flex gap-3 py-0.5">
                <span className="w-14 shrink-0 text-soft">{say("lesson.min", { minutes: b.minutes })}</span>
                <span className="truncate">{b.title || blockNames[b.kind]}</span>
              </li>
            ))}
          </ol>
        </div>
      </div>
      {last && after && after.sheet > 0 && <SendNow view={view} />}
      <div className="flex flex-wrap items-center gap-4 pt-5">
        <Link
          to="/students/$student/week"
          params={{ student }}
          search={last ? {} : { day: view.day }}
          className="rounded border border-ink px-4 py-2 font-[620]"
        >
          {say("lesson.seePracticeSheet")}
        </Link>
        <Link
          to="/students/$student/ladder"
          params={{ student }}
          className="rounded border border-ink px-4 py-2 font-[620]"
        >
          {say("lesson.seeLadder")}
        </Link>
        {more && <Button onClick={more}>{say("lesson.markSomethingMore")}</Button>}
        {last && (
          <Button className="ml-auto" hint="U" onClick={undo} disabled={!undo}>
            {say("lesson.undoLastMark")}
          </Button>
        )}
      </div>
    </section>
  );
}

const rated = Object.entries(ratings) as [keyof typeof ratings, string][];

// Rated is how the lesson went for the teacher, in one touch.
function Rated({ view }: { view: LessonView }) {
  const rate = (rating: keyof typeof ratings) => () =>
    tell(view.student.id, { kind: "lesson_rated", day: view.day, rating });
  useKeys(Object.fromEntries(rated.map(([rating], i) => [String(i + 1), rate(rating)])));
  return (
    <fieldset className="mt-5 flex flex-wrap items-center gap-2">
      <legend className="float-left mr-2 font-[620]">{say("lesson.forYouThisLesson")}</legend>
      {rated.map(([rating, says], i) => (
        <button
          key={rating}
          type="button"
          aria-pressed={view.rating === rating}
          onClick={rate(rating)}
          className={`flex min-h-11 items-center gap-2 rounded border-[1.5px] px-3.5 ${
            view.rating === rating ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"
          }`}
        >
          <Key>{i + 1}</Key> {says}
        </button>
      ))}
    </fieldset>
  );
}

// SendNow puts the sheet on its way with one touch.
function SendNow({ view }: { view: LessonView }) {
  const send = useSend(view.student.id);
  const last = useFared(latest(send.data, view.after?.sending));
  const again = last !== undefined && !onTheWay(last);
  const ready = view.student.contact !== "" && !send.isPending && (!last || again);
  useKeys({ m: () => ready && send.put() }); // no key that marks in a lesson
  return (
    <div className="mt-auto max-w-xl pt-5">
      {last && <Fared sending={last} />}
      {(!last || again) && view.student.contact && (
        <Button look="main" hint="M" disabled={!ready} onClick={send.put}>
          {send.isPending
            ? say("lesson.sending")
            : sends(last, say("lesson.sendSheet", { contact: view.student.contact }))}
        </Button>
      )}
      {!view.student.contact && <Contact student={view.student} />}
      {send.error && <Trouble>{send.error.message}</Trouble>}
    </div>
  );
}
