import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { namedDay, plural, sentence } from "../../parts/words";

type Props = { view: Schemas["LadderView"]; mixture: Schemas["MixtureView"] };

const outcomes: Record<string, string> = { pass: "passed", nearly: "nearly", "not-yet": "not yet" };

// Mixture stands in for the ladder before the first book: what the next lesson
// mixes, what goes already, what waits, and the one test.
export function Mixture({ view, mixture }: Props) {
  const rung = (id: string) => view.rungs.find((r) => r.id === id);
  const going = view.rungs.filter((r) => r.state === "secure");
  const waiting = view.rungs.filter(
    (r) => r.state !== "secure" && r.state !== "parked" && !mixture.next.some((b) => b.rung === r.id),
  );
  return (
    <section aria-label="Mixture" className="min-w-0 flex-1 space-y-4">
      <section aria-label="Next lesson">
        <h2 className="mb-1.5 text-large">The next lesson's mixture</h2>
        <ol className="grid gap-2.5 sm:grid-cols-2 xl:grid-cols-3">
          {mixture.next.map((b) => {
            const r = rung(b.rung);
            return (
              <li
                key={b.rung}
                className={`rounded border-[1.5px] p-3 ${r?.state === "secure" ? "border-keep bg-keep-tint" : "border-now bg-now-tint"}`}
              >
                <b className="block text-large font-[650]">{r?.title}</b>
                <span className="text-soft">{sentence(b.why)}</span>
              </li>
            );
          })}
        </ol>
        {mixture.next.length === 0 && (
          <p className="rounded bg-raised p-4 text-soft">
            Nothing is placed. Place small things with “Place a piece” at the right.
          </p>
        )}
      </section>
      <div className="grid gap-4 sm:grid-cols-2">
        <Small name="Goes already" rungs={going} note={(r) => (r.foothold ? `since ${namedDay(r.foothold)}` : "")} />
        {waiting.length > 0 && (
          <Small
            name="Waiting its turn"
            rungs={waiting}
            note={(r) => (r.taught ? `begun, ${plural(Math.round(r.weeks), "week")}` : "new")}
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
  const say = (outcome: "pass" | "nearly" | "not-yet") =>
    tell(student.id, { kind: "probed", probe: "first-book", outcome });
  return (
    <section aria-label="Test for book one" className="rounded bg-raised px-4 py-3">
      <h2>When can book one begin?</h2>
      <p className="text-soft">
        Play a tune of five notes once. {student.firstName} sets the hand alone and plays it back in a steady beat.
        {test.tried && test.at && ` Last tried ${namedDay(test.at)}: ${outcomes[test.tried]}.`}
      </p>
      <ul className="my-2 flex flex-wrap gap-2">
        {test.signs.map((s) => (
          <li
            key={s.skill}
            className={`rounded border px-2.5 py-1 ${s.met ? "border-keep bg-keep-tint" : "border-dashed border-soft"}`}
          >
            {s.met ? "✓ " : ""}
            {s.name}
            <span className="sr-only">{s.met ? ", there" : ", not yet"}</span>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-2">
        <Button look={test.near ? "main" : "plain"} onClick={() => say("pass")}>
          Passed
        </Button>
        <Button onClick={() => say("nearly")}>Nearly</Button>
        <Button onClick={() => say("not-yet")}>Not yet</Button>
      </div>
    </section>
  );
}
