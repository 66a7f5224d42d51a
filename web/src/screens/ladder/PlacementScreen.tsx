import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { placementView } from "../../api/views";
import { Button, Key } from "../../parts/Button";
import { CardFace } from "../../parts/CardFace";
import { useKeys } from "../../parts/keys";
import { Notes } from "../../parts/Notes";
import { Shown } from "../../parts/Told";
import { rich, say } from "../../words/say";

// PlacementScreen asks one thing after another at the instrument, until it is known well enough
// where a student from elsewhere begins; it can be left at any time.
export function PlacementScreen() {
  const { student } = useParams({ from: "/inside/students/$student/placement" });
  const [skipped, skip] = useState<string[]>([]);
  const query = useQuery({ ...placementView(student, skipped), placeholderData: keepPreviousData });
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-6 px-4 pb-6 lg:grid-cols-[1fr_330px]">
          <section aria-label={say("ladder.atTheInstrument")} className="rounded bg-raised p-6">
            {view.next ? (
              <Ask
                key={view.next.skill}
                question={view.next}
                instrument={view.student.instrument}
                asked={view.asked}
                answer={(outcome) => tell(student, { kind: "probed", probe: view.next?.skill ?? "", outcome })}
                skip={() => skip([...skipped, view.next?.skill ?? ""])}
              />
            ) : (
              <p className="text-head">
                {view.asked === 0
                  ? say("ladder.noBookShelfBringsSkill")
                  : say("ladder.nothingMoreWouldTellMuch", { asked: view.asked })}
              </p>
            )}
          </section>
          <Found view={view} />
        </main>
      )}
    </Shown>
  );
}

type Outcome = "pass" | "nearly" | "not-yet";
const answers: { outcome: Outcome; name: string }[] = [
  { outcome: "pass", name: say("ladder.pass") },
  { outcome: "nearly", name: say("ladder.nearly") },
  { outcome: "not-yet", name: say("ladder.notYet3") },
];

function Ask({
  question,
  instrument,
  asked,
  answer,
  skip,
}: {
  question: Schemas["Question"];
  instrument: string;
  asked: number;
  answer: (outcome: Outcome) => void;
  skip: () => void;
}) {
  useKeys({
    ...Object.fromEntries(answers.map((a, i) => [`${i + 1}`, () => answer(a.outcome)])),
    "4": skip,
  });
  return (
    <>
      <p className="text-soft">{asked === 0 ? say("ladder.firstQuestion") : say("ladder.afterAnswers", { asked })}</p>
      <h2 className="mt-2 text-[44px] leading-tight">{question.name}</h2>
      <p className="mt-4 text-[26px] leading-snug">{question.try}</p>
      {question.exercise && (
        <div className="mt-4">
          <Notes exercise={question.exercise} instrument={instrument} />
        </div>
      )}
      {question.card && (
        <div className="mt-4">
          <p className="text-large">{question.card.asks}</p>
          <CardFace card={question.card} />
          <p className="mt-1 text-soft">{say("ladder.right", { right: question.card.right })}</p>
        </div>
      )}
      <p className="mt-8 flex flex-wrap gap-3">
        {answers.map((a, i) => (
          <Button key={a.outcome} onClick={() => answer(a.outcome)}>
            {a.name} <Key>{i + 1}</Key>
          </Button>
        ))}
        <Button look="quiet" onClick={skip}>
          {say("ladder.skip")} <Key>4</Key>
        </Button>
      </p>
    </>
  );
}

// Found says where to begin so far, and what is missing or in doubt.
function Found({ view }: { view: Schemas["PlacementView"] }) {
  const { student, begin } = view;
  return (
    <aside aria-label={say("ladder.soFar")} className="space-y-4">
      {begin && (
        <section>
          <h2>{say("ladder.startHere")}</h2>
          <p className="mt-1 rounded bg-raised px-3 py-2">
            <b className="font-[650]">{begin.title}</b>
            <br />
            <span className="text-soft">
              {begin.book}, {begin.unit}
            </span>
            <br />
            <Button
              look="quiet"
              className="mt-1"
              onClick={() => tell(student.id, { kind: "book_chosen", book: begin.book, from: begin.item })}
            >
              {say("ladder.beginsHere", { firstName: student.firstName })}
            </Button>
          </p>
        </section>
      )}
      {view.from && (
        <section>
          <h2>{say("ladder.notKnownYetWhereBegin")}</h2>
          <p className="mt-1 rounded bg-raised px-3 py-2">
            {view.to ? say("ladder.somewhereBetween") : say("ladder.somewhereFrom")}{" "}
            <b className="font-[650]">{view.from.title}</b>
            {view.to && rich("ladder.and", { title: view.to.title, b: (text) => <b className="font-[650]">{text}</b> })}
            {say("ladder.oneTimeTwoFewMore")}
          </p>
        </section>
      )}
      <Skills title={say("ladder.missingUnder")} list={view.missing} />
      <Skills title={say("ladder.notSureAbout")} list={view.unsure} />
      <Link to="/students/$student/ladder" params={{ student: student.id }} className="underline underline-offset-4">
        {say("ladder.enoughLadder")}
      </Link>
    </aside>
  );
}

function Skills({ title, list }: { title: string; list: Schemas["Question"][] }) {
  if (list.length === 0) return null;
  return (
    <details className="rounded bg-raised px-3 py-2" open={list.length <= 8}>
      <summary className="cursor-pointer font-[650]">
        {title}: {say("count.skill", { n: list.length })}
      </summary>
      <ul className="mt-1 divide-y divide-faint">
        {list.map((s) => (
          <li key={s.skill} className="py-1">
            {s.name}
          </li>
        ))}
      </ul>
    </details>
  );
}
