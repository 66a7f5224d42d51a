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
import { plural } from "../../parts/words";

// PlacementScreen asks one thing after another at the instrument, until it is known well enough
// where a student from elsewhere begins; it can be left at any time.
export function PlacementScreen() {
  const { student } = useParams({ from: "/inside/students/$student/placement" });
  const [skipped, skip] = useState<string[]>([]);
  const query = useQuery({ ...placementView(student, skipped), placeholderData: keepPreviousData });
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 content-start gap-6 px-4 pb-6 lg:grid-cols-[1fr_330px]">
          <section aria-label="At the instrument" className="rounded bg-raised p-6">
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
                  ? "No book on the shelf brings a skill to ask after yet."
                  : `Nothing more would tell much. ${plural(view.asked, "answer")} so far.`}
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
  { outcome: "pass", name: "Pass" },
  { outcome: "nearly", name: "Nearly" },
  { outcome: "not-yet", name: "Not yet" },
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
      <p className="text-soft">{asked === 0 ? "The first question" : `After ${plural(asked, "answer")}`}</p>
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
          <p className="mt-1 text-soft">Right: {question.card.right}</p>
        </div>
      )}
      <p className="mt-8 flex flex-wrap gap-3">
        {answers.map((a, i) => (
          <Button key={a.outcome} onClick={() => answer(a.outcome)}>
            {a.name} <Key>{i + 1}</Key>
          </Button>
        ))}
        <Button look="quiet" onClick={skip}>
          Skip <Key>4</Key>
        </Button>
      </p>
    </>
  );
}

// Found says where to begin so far, and what is missing or in doubt.
function Found({ view }: { view: Schemas["PlacementView"] }) {
  const { student, begin } = view;
  return (
    <aside aria-label="So far" className="space-y-4">
      {begin && (
        <section>
          <h2>Begin here</h2>
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
              {student.firstName} begins here
            </Button>
          </p>
        </section>
      )}
      {view.from && (
        <section>
          <h2>Not known yet where to begin</h2>
          <p className="mt-1 rounded bg-raised px-3 py-2">
            {view.to ? "Somewhere between" : "Somewhere from"} <b className="font-[650]">{view.from.title}</b>
            {view.to && (
              <>
                {" "}
                and <b className="font-[650]">{view.to.title}</b>
              </>
            )}
            {view.to ? ", " : " on, "}one time in two. A few more answers tell.
          </p>
        </section>
      )}
      <Skills title="Missing under it" list={view.missing} />
      <Skills title="Not sure about" list={view.unsure} />
      <Link to="/students/$student/ladder" params={{ student: student.id }} className="underline underline-offset-4">
        That is enough: to the ladder
      </Link>
    </aside>
  );
}

function Skills({ title, list }: { title: string; list: Schemas["Question"][] }) {
  if (list.length === 0) return null;
  return (
    <details className="rounded bg-raised px-3 py-2" open={list.length <= 8}>
      <summary className="cursor-pointer font-[650]">
        {title}: {plural(list.length, "skill")}
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
