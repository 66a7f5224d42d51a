import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { type Grade, grades } from "../../parts/words";
import { say } from "../../words/say";
import { told } from "./told";
import type { LessonView } from "./view";
import { Went } from "./Went";

type Props = { view: LessonView; block: Schemas["Block"]; rung: Schemas["RungView"] };

// Hearing marks how a secure piece went, in one touch; what the student chose to
// open with is worth a note of its own.
export function Hearing({ view, block, rung }: Props) {
  const student = view.student.id;
  const opener = block.kind === "opener";
  const mark = (grade: Grade) => tell(student, { kind: "heard", rung: rung.id, grade });
  const chose = () => tell(student, { kind: "opened_with", rung: rung.id });
  const grade = told(view, "heard").findLast((b) => b.rung === rung.id)?.grade;
  const chosen = told(view, "opened_with").some((b) => b.rung === rung.id);
  const list = Object.entries(grades) as [Grade, string][];
  useKeys({
    ...Object.fromEntries(list.map(([outcome], i) => [String(i + 1), () => mark(outcome)])),
    h: opener && !chosen ? chose : undefined,
  });
  return (
    <div className="mt-6 space-y-4">
      <fieldset>
        <legend className="mb-2 text-large">{say("lesson.howDidGo")}</legend>
        <div className="grid grid-cols-2 gap-2.5 lg:grid-cols-4">
          {list.map(([outcome, name], i) => (
            <button
              key={outcome}
              type="button"
              aria-pressed={grade === outcome}
              onClick={() => mark(outcome)}
              className={`flex min-h-16 items-center gap-3 rounded border-[1.5px] px-4 text-large font-[620] ${
                grade === outcome ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"
              }`}
            >
              <Key>{i + 1}</Key> {name}
            </button>
          ))}
        </div>
      </fieldset>
      {opener && (
        <button
          type="button"
          aria-pressed={chosen}
          onClick={chosen ? undefined : chose}
          className={`flex min-h-11 items-center gap-3 rounded border px-3.5 ${chosen ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"}`}
        >
          <Key>H</Key> {chosen ? say("lesson.chosenStudent") : say("lesson.studentChose")}
        </button>
      )}
      <Went view={view} rung={rung.id} />
    </div>
  );
}
