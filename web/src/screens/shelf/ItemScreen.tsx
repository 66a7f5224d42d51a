import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { itemView, ladderView, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Score } from "../../parts/Score";
import { Shown } from "../../parts/Told";
import { sentence, strandNames } from "../../parts/words";
import { EditItem } from "./EditItem";

// ItemScreen: the score drawn, what is known of the item, and whose ladder it
// goes on.
export function ItemScreen() {
  const { item } = useParams({ from: "/inside/items/$item" });
  const query = useQuery(itemView(item));
  const [editing, edit] = useState(false);
  return (
    <Shown query={query}>
      {(view) => (
        <main className="grid flex-1 content-start gap-5 px-4 py-3 lg:grid-cols-[1fr_320px]">
          <div className="min-w-0">
            <p className="text-soft">
              <Link to="/shelf" className="underline underline-offset-4">
                Shelf
              </Link>{" "}
              / {view.item.book}
              {view.item.unit && ` / ${view.item.unit}`}
            </p>
            <div className="mb-3 flex items-start justify-between gap-4">
              <h1 className="text-head">
                {view.item.title}{" "}
                {view.item.composer && <span className="text-body font-normal text-soft">{view.item.composer}</span>}
              </h1>
              <Button disabled={editing} onClick={() => edit(true)}>
                Edit
              </Button>
            </div>
            {view.item.hasScore ? (
              <Score item={view.item.id} title={view.item.title} />
            ) : (
              <p className="rounded bg-raised p-6 text-soft">This item has no score: it is shown and told.</p>
            )}
          </div>
          <aside className="space-y-4">
            {editing ? (
              <EditItem item={view.item} close={() => edit(false)} />
            ) : (
              <>
                <Place item={view.item} />
                <Minute view={view} />
                <Facts view={view} />
              </>
            )}
          </aside>
        </main>
      )}
    </Shown>
  );
}

// Minute is what a teacher reads off the score before giving it.
function Minute({ view }: { view: Schemas["ItemView"] }) {
  if (view.minute.length === 0) return null;
  return (
    <section aria-label="Read off the score" className="rounded bg-raised px-4 py-3">
      <h2 className="mb-1">Read off the score</h2>
      <ul className="space-y-0.5">
        {view.minute.map((r) => (
          <li key={sentence(r)}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}

function Facts({ view }: { view: Schemas["ItemView"] }) {
  const { item } = view;
  const lines: [string, string][] = [
    ["Lane", strandNames[item.strand] ?? ""],
    ["Taste", item.taste ?? ""],
    ["Key and meter", [view.key, view.meter].filter(Boolean).join(", ")],
    ["Lowest, highest", view.lowest ? `${view.lowest} to ${view.highest}` : ""],
    ["Brings", view.brings.join(", ")],
    ["Needs", view.needs.join(", ")],
    ["Revisits", view.revisits.join(", ")],
    ["Focus points", item.points.join(", ")],
    ["Parts", item.parts.join(", ")],
    ["Said before playing", item.cue ?? ""],
    [
      "Not kept from the file",
      view.unread
        .map((u) => `${u.what}, ${u.bar ? `bar ${u.bar}` : "head"}${u.count > 1 ? ` and ${u.count - 1} more` : ""}`)
        .join("; "),
    ],
  ];
  return (
    <dl className="rounded bg-raised px-4 py-3">
      {lines
        .filter(([, text]) => text)
        .map(([name, text]) => (
          <div key={name} className="border-b border-faint py-1.5 last:border-0">
            <dt className="text-small text-soft">{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
    </dl>
  );
}

// Place puts the item on a student's ladder.
function Place({ item }: { item: Schemas["Item"] }) {
  const { data: day } = useDay();
  const students = day?.students.filter((s) => s.instrument === item.instrument) ?? [];
  const [picked, pick] = useState("");
  const student = students.find((s) => s.id === picked) ?? students[0];
  if (!student) return <p className="rounded bg-raised p-4 text-soft">No student here plays {item.instrument}.</p>;
  return (
    <section aria-label="Place on a ladder" className="space-y-2 rounded bg-raised p-4">
      <label className="block font-[580]">
        Student
        <select
          className="mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal"
          value={student.id}
          onChange={(e) => pick(e.target.value)}
        >
          {students.map((s) => (
            <option key={s.id} value={s.id}>
              {s.firstName} {s.familyName}
            </option>
          ))}
        </select>
      </label>
      <PlaceOn key={student.id} item={item} student={student} />
    </section>
  );
}

function PlaceOn({ item, student }: { item: Schemas["Item"]; student: Schemas["StudentCard"] }) {
  const query = useQuery(ladderView(student.id));
  const there = query.data?.rungs.find((r) => r.item === item.id && r.state !== "proposed");
  if (there) {
    return (
      <p>
        On {student.firstName}'s ladder, {there.state}.{" "}
        <Link
          to="/students/$student/ladder"
          params={{ student: student.id }}
          className="font-[620] underline underline-offset-4"
        >
          See the ladder
        </Link>
      </p>
    );
  }
  const add = (after: string) =>
    tell({ student: student.id, kind: "rung_added", item: item.id, strand: item.strand, after });
  const lane = query.data?.rungs.filter((r) => r.strand === item.strand) ?? [];
  const secure = lane.findLast((r) => r.state === "secure");
  const now = lane.findLast((r) => r.state === "secure" || r.state === "current");
  return (
    <div className="flex flex-wrap gap-2">
      <Button look="main" disabled={!query.data} onClick={() => add(secure?.id ?? "")}>
        Begin it now
      </Button>
      <Button disabled={!query.data} onClick={() => add(now?.id ?? "")}>
        Place it next
      </Button>
      <Button disabled={!query.data} onClick={() => add("top")}>
        Place it last
      </Button>
    </div>
  );
}
