import { Link } from "@tanstack/react-router";
import { HomeForm } from "../../parts/HomeForm";
import { useInstruments } from "../../parts/instruments";
import { say } from "../../words/say";
import type { LessonView } from "./view";

// SetUp says how this student sits at the studio's instrument, and what to mind; in a first
// meeting it asks what the home has.
export function SetUp({ view }: { view: LessonView }) {
  const instruments = useInstruments();
  const { student } = view;
  const plays = instruments.of(student.instrument);
  return (
    <div className="mt-4 space-y-3">
      {view.seat.says.length > 0 && (
        <ul className="space-y-1 text-large" aria-label={say("lesson.theSeat")}>
          {view.seat.says.map((r) => (
            <li key={r.code}>{r.says}</li>
          ))}
        </ul>
      )}
      {view.seat.again && (
        <p className="border-l-4 border-now pl-3">
          {view.seat.again.says}{" "}
          <Link
            to="/workbench"
            search={{ student: view.student.id }}
            className="font-[620] underline underline-offset-4"
          >
            {say("lesson.measure")}
          </Link>
        </p>
      )}
      {view.plan.mode === "first" && plays && (
        <HomeForm
          key={JSON.stringify(student.home)}
          student={student.id}
          home={student.home}
          plays={plays}
          sitting
          title={say("lesson.whatThereHome")}
        />
      )}
      <p className="text-soft">{say("lesson.painNumbnessTinglingStopPlaying")}</p>
    </div>
  );
}
