import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { namedDay } from "../../parts/words";
import { say } from "../../words/say";

type Props = { view: Schemas["LadderView"]; mixture: Schemas["MixtureView"] };

const outcomes: Record<string, string> = {
  pass: say("ladder.passedIt"),
  nearly: say("ladder.nearlyTried"),
  "not-yet": say("ladder.notYet"),
};

// Mixture stands in for the ladder before the first book: what the next lesson
// mixes, what goes already, what waits, and the one test.
export function Mixture({ view, mixture }: Props) {
  const rung = (id: string) => view.rungs.find((r) => r.id === id);
  const going = view.rungs.filter((r) => r.state === "secure");
  const waiting = view.rungs.filter(
    (r) => r.state !== "secure" && r.state !== "parked" && !mixture.next.some((b) => b.rung === r.id),
  );
  return (
    <section aria-label={say("ladder.mixture")} className="min-w-0 flex-1 space-y-4">
      <section aria-label={say("ladder.nextLesson")}>
        <h2 className="mb-1.5 text-large">{say("ladder.nextLessonsMixture")}</h2>
        <ol className="grid gap-2.5 sm:grid-cols-2 xl:grid-cols-3">
          {mixture.next.map((b) => {
            const r = rung(b.rung);
            return (
              <li
                key={b.rung}
                className={`rounded border-[1.5px] p-3 ${r?.state === "secure" ? "border-keep bg-keep-tint" : "border-now bg-now-tint"}`}
              >
                <b className="block text-large font-[650]">{r?.title}</b>
                <span className="text-soft">{b.why.says}</span>
              </li>
            );
          })}
        </ol>
        {mixture.next.length === 0 && (
          <p className="rounded bg-raised p-4 text-soft">{say("ladder.nothingPlacedPlaceSmallThings")}</p>
        )}
      </section>
      <div className="grid gap-4 sm:grid-cols-2">
        <Small
          name={say("ladder.goesAlready")}
          rungs={going}
          note={(r) => (r.foothold ? say("ladder.since", { day: namedDay(r.foothold) }) : "")}
        />
        {waiting.length > 0 && (
          <Small
            name={say("ladder.waitingItsTurn")}
            rungs={waiting}
            note={(r) => (r.taught ? say("ladder.begunWeeks", { weeks: Math.round(r.weeks) }) : say("ladder.newHere"))}
          />
        )}
      </div>
      <FirstBook student={view.student} test={mixture.test} />
    </section>
  );
}

function Small({
  name,
  rungs,
  note,
}: {
  name: string;
  rungs: Schemas["RungView"][];
  note: (r: Schemas["RungView"]) => string;
}) {
  return (
    <section aria-label={name} className="rounded bg-raised px-4 py-3">
      <h2 className="mb-1">
        {name}: {rungs.length}
      </h2>
      <ul className="divide-y divide-faint">
        {rungs.map((r) => (
          <li key={r.id} className="flex justify-between gap-3 py-1">
            <span>{r.title}</span>
            <span className="text-soft">{note(r)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

// FirstBook is the test that says when book one can begin.
function FirstBook({ student, test }: { student: Schemas["StudentCard"]; test: Schemas["Test"] }) {
  const answer = (outcome: "pass" | "nearly" | "not-yet") =>
    tell(student.id, { kind: "probed", probe: "first-book", outcome });
  return (
    <section aria-label={say("ladder.testBookOne")} className="rounded bg-raised px-4 py-3">
      <h2>{say("ladder.whenCanBookOneBegin")}</h2>
      <p className="text-soft">
        {say("ladder.playTuneFiveNotesOnce", { firstName: student.firstName })}
        {test.tried && test.at && say("ladder.lastTried", { day: namedDay(test.at), outcomes: outcomes[test.tried] })}
      </p>
      <ul className="my-2 flex flex-wrap gap-2">
        {test.signs.map((s) => (
          <li
            key={s.skill}
            className={`rounded border px-2.5 py-1 ${s.met ? "border-keep bg-keep-tint" : "border-dashed border-soft"}`}
          >
            {s.met ? "✓ " : ""}
            {s.name}
            <span className="sr-only">{s.met ? say("ladder.there") : say("ladder.notYet2")}</span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button look={test.near ? "main" : "plain"} onClick={() => answer("pass")}>
          {say("ladder.passed3")}
        </Button>
        <Button onClick={() => answer("nearly")}>{say("ladder.nearly")}</Button>
        <Button onClick={() => answer("not-yet")}>{say("ladder.notYet3")}</Button>
      </div>
    </section>
  );
}
