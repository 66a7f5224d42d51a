import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries } from "../../api/client";
import type { Noted as Entry } from "../../api/echo";
import { useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { tellOf, time } from "../../parts/words";
import { say } from "../../words/say";
import type { LessonView } from "./view";

// Noted lists what was told in this lesson, newest last, and says of each mark
// whether the studio has it yet.
export function Noted({ view, zone }: { view: LessonView; zone: string }) {
  const told = view.noted.filter((e: Entry) => !e.back && e.fact.body.kind !== "lesson_opened");
  return (
    <section aria-label={say("lesson.notedToday")}>
      <h2 className="mb-1.5">{view.today ? say("lesson.notedToday") : say("lesson.noted")}</h2>
      <ol className="max-h-[300px] divide-y divide-faint overflow-y-auto rounded bg-raised px-3" aria-live="polite">
        {told.map((e: Entry) => (
          <li key={e.fact.id} className="flex gap-3 py-1.5">
            <span className="w-12 shrink-0 text-soft">{time(e.fact.at, zone)}</span>
            <span className="flex-1">
              {e.title && <b className="font-[620]">{e.title} </b>}
              {tellOf(e)}
            </span>
            {e.waiting && <span className="text-small text-now">{say("lesson.keptHere")}</span>}
          </li>
        ))}
        {told.length === 0 && (
          <li className="py-2 text-soft">
            {view.state === "planned" ? say("lesson.marksWillStandHereOnce") : say("lesson.nothingYet")}
          </li>
        )}
      </ol>
      <Elsewhere view={view} marks={told.length > 0 ? view.noted.filter((e) => !e.back).map((e) => e.fact.id) : []} />
    </section>
  );
}

// Elsewhere takes the marks of this lesson over to the student whom they are of.
function Elsewhere({ view, marks }: { view: LessonView; marks: string[] }) {
  const [open, setOpen] = useState(false);
  const students = (useDay().data?.students ?? []).filter((s) => s.id !== view.student.id);
  const move = useMutation({
    mutationFn: (to: string) =>
      answer(
        api.POST("/api/students/{student}/moved", {
          params: { path: { student: view.student.id } },
          body: { to, marks },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const to = String(new FormData(e.currentTarget).get("to"));
    if (to) move.mutate(to);
  };
  if (move.data)
    return (
      <p role="status" className="mt-1.5">
        {say("lesson.marksTakenOver", { moved: move.data.moved })}
        {move.data.left.length > 0 &&
          ` ${say("lesson.marksHadNoPlaceThere", { left: move.data.left.length, list: move.data.left.map(tellOf).join("; ") })}`}
      </p>
    );
  if (marks.length === 0) return null;
  if (!open)
    return (
      <Button look="quiet" className="mt-1 px-1! py-0.5!" onClick={() => setOpen(true)}>
        {say("lesson.theseAreAnotherStudents")}
      </Button>
    );
  return (
    <form onSubmit={submit} className="mt-1.5 flex flex-wrap gap-2">
      <select
        name="to"
        required
        aria-label={say("lesson.whoseTheyAre")}
        className="flex-1 rounded border border-line bg-raised px-2"
      >
        <option value="">{say("lesson.whoseAreThey")}</option>
        {students.map((s) => (
          <option key={s.id} value={s.id}>
            {s.firstName} {s.familyName}
          </option>
        ))}
      </select>
      <Button type="submit" disabled={move.isPending}>
        {say("lesson.takeMarksOver", { marks: marks.length })}
      </Button>
      {move.error && <Trouble>{move.error.message}</Trouble>}
    </form>
  );
}
