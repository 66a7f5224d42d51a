import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { say } from "../../words/say";
import type { LessonView } from "./view";

// Taught asks, before a lesson is finished, whether what is new in its plan was taught: only what
// was taught goes home.
export function Taught({ view, finish }: { view: LessonView; finish: () => void }) {
  return (
    <fieldset className="mt-3 rounded border-l-4 border-ahead bg-ground p-3">
      <legend className="float-left mb-1 w-full font-[650]">{say("lesson.taughtTodayOnlyWhatWas")}</legend>
      <ul className="w-full space-y-1.5">
        {view.untaught.map((u) => (
          <li key={u.rung} className="flex items-center gap-3">
            <Button onClick={() => tell(view.student.id, { kind: "taught", rung: u.rung })}>
              {say("lesson.taughtToday")}
            </Button>
            {u.title}
          </li>
        ))}
        {view.untaught.length === 0 && <li className="text-soft">{say("lesson.allMarked")}</li>}
      </ul>
      <Button look="main" className="mt-2" hint="C" onClick={finish}>
        {say("lesson.finishLesson")}
      </Button>
    </fieldset>
  );
}
