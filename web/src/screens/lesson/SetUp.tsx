import { Link } from "@tanstack/react-router";
import { HomeForm } from "../../parts/HomeForm";
import { useInstruments } from "../../parts/instruments";
import { sentence } from "../../parts/words";
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
        <ul className="space-y-1 text-large" aria-label="The seat">
          {view.seat.says.map((r) => (
            <li key={r.code}>{sentence(r)}</li>
          ))}
        </ul>
      )}
      {view.seat.again && (
        <p className="border-l-4 border-now pl-3">
          {sentence(view.seat.again)}{" "}
          <Link
            to="/workbench"
            search={{ student: view.student.id }}
            className="font-[620] underline underline-offset-4"
          >
            Measure
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
          title="What is there at home?"
        />
      )}
      <p className="text-soft">
        Pain, numbness or tingling: stop playing for today; a licensed clinician is seen before playing goes on. Ask
        before guiding a hand; your local safeguarding rules come first.
      </p>
    </div>
  );
}
