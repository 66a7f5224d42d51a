import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { sentence } from "../../parts/words";
import type { LessonView } from "./view";

// Asked is what the family asked at home; it stands here until it is answered.
export function Asked({ view }: { view: LessonView }) {
  const open = view.asked;
  if (open.length === 0) return null;
  return (
    <section aria-label="Asked at home" className="rounded border-l-4 border-now bg-raised p-3">
      <h2 className="mb-1">Asked at home</h2>
      <ul className="space-y-2">
        {open.map((q) => (
          <li key={q.id} className="flex items-start gap-2">
            <span className="min-w-0 flex-1 text-large leading-snug">{q.text}</span>
            <Button onClick={() => tell(view.student.id, { kind: "question_answered", question: q.id })}>
              Answered
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
    <section aria-label="From home" className="rounded border-l-4 border-soft bg-raised p-3">
      <h2 className="mb-1">
        From home: practice {home.practice}, joy {home.joy === "untold" ? "not told" : home.joy}
      </h2>
      <ul className="space-y-1">
        {home.try.map((r) => (
          <li key={r.code}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}
