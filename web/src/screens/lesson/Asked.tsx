import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { say } from "../../words/say";
import type { LessonView } from "./view";

// Asked is what the family asked at home; it stands here until it is answered.
export function Asked({ view }: { view: LessonView }) {
  const open = view.asked;
  if (open.length === 0) return null;
  return (
    <section aria-label={say("lesson.askedHome")} className="rounded border-l-4 border-now bg-raised p-3">
      <h2 className="mb-1">{say("lesson.askedHome")}</h2>
      <ul className="space-y-2">
        {open.map((q) => (
          <li key={q.id} className="flex items-start gap-2">
            <span className="min-w-0 flex-1 text-large leading-snug">{q.text}</span>
            <Button onClick={() => tell(view.student.id, { kind: "question_answered", question: q.id })}>
              {say("lesson.answered")}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

// Tried is what four weeks at home ask of this lesson; nothing where all goes well.
export function Tried({ view }: { view: LessonView }) {
  const { home } = view;
  if (home.practice === "untold" || (home.practice === "much" && home.joy !== "little")) return null;
  return (
    <section aria-label={say("lesson.fromHome")} className="rounded border-l-4 border-soft bg-raised p-3">
      <h2 className="mb-1">{say("lesson.fromHomePracticeJoy", { practice: home.practice, joy: home.joy })}</h2>
      <ul className="space-y-1">
        {home.try.map((r) => (
          <li key={r.code}>{r.says}</li>
        ))}
      </ul>
    </section>
  );
}
