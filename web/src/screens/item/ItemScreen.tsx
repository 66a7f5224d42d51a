import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { itemView, readingView, scoreText, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { useInstruments } from "../../parts/instruments";
import { Score } from "../../parts/Score";
import { Shown } from "../../parts/Told";
import { say } from "../../words/say";
import { EditItem } from "../shelf/EditItem";
import { Asks } from "./Asks";
import { Chunks } from "./Chunks";
import { Copies } from "./Copies";
import { Facts } from "./Facts";
import { Keeping } from "./Keeping";
import { Layers, type Switched, usePage } from "./Layers";
import { Minute } from "./Minute";
import { Passage } from "./Passage";
import { Place } from "./Place";
import { Players } from "./Players";

type View = Schemas["ItemView"];

// ItemScreen: the score with its layers, what is read off it for a student, its
// chunks to hear, and whose ladder it goes on.
export function ItemScreen() {
  const { item } = useParams({ from: "/inside/items/$item" });
  const query = useQuery(itemView(item));
  return <Shown query={query}>{(view) => <Item key={item} view={view} />}</Shown>;
}

function Item({ view }: { view: View }) {
  const { item } = view;
  const [editing, edit] = useState(false);
  const [student, choose] = useState("");
  const { data: day } = useDay();
  const instruments = useInstruments();
  const students = day?.students.filter((s) => instruments.together(s.instrument, item.instrument)) ?? [];
  const reading = useQuery({ ...readingView(item.id, student), enabled: item.hasScore });
  return (
    <main className="grid flex-1 content-start gap-5 px-4 py-3 lg:grid-cols-[1fr_340px] print:block print:p-0">
      <div className="min-w-0">
        <p className="text-soft print:hidden">
          <Link to="/shelf" className="underline underline-offset-4">
            {say("item.shelf")}
          </Link>{" "}
          / {item.book}
          {item.unit && ` / ${item.unit}`}
        </p>
        <div className="mb-2 flex items-start justify-between gap-4">
          <h1 className="text-head">
            {item.title} {item.composer && <span className="text-body font-normal text-soft">{item.composer}</span>}
          </h1>
          <span className="flex gap-2 print:hidden">
            {item.hasScore && <Button onClick={() => window.print()}>{say("item.print")}</Button>}
            {!item.sameAs && (
              <Button disabled={editing} onClick={() => edit(true)}>
                {say("item.edit")}
              </Button>
            )}
          </span>
        </div>
        {item.hasScore ? (
          <Shown query={reading}>
            {(read) => <Page view={view} read={read} student={students.find((s) => s.id === student)} />}
          </Shown>
        ) : (
          <p className="rounded bg-raised p-6 text-soft">{say("item.itemHasNoScoreShow")}</p>
        )}
      </div>
      <aside className="space-y-4 print:mt-3">
        {editing ? (
          <EditItem item={item} close={() => edit(false)} />
        ) : (
          <>
            <div className="space-y-2 rounded bg-raised p-4 print:hidden">
              <label className="block font-[580]">
                {say("item.readFor")}
                <select
                  className="mt-0.5 block w-full rounded border border-line bg-ground px-2 py-1.5 font-normal"
                  value={student}
                  onChange={(e) => choose(e.target.value)}
                >
                  <option value="">{say("item.anybody")}</option>
                  {students.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.firstName} {s.familyName}
                    </option>
                  ))}
                </select>
              </label>
              {students.length === 0 && (
                <p className="text-soft">
                  {say("item.noStudentHerePlays", { name: instruments.name(item.instrument) })}
                </p>
              )}
              {students
                .filter((s) => s.id === student)
                .map((s) => (
                  <Place key={s.id} item={item} student={s} />
                ))}
              {student === "" && students.length > 0 && (
                <p className="text-soft">{say("item.chooseStudentSeeWhatNew")}</p>
              )}
            </div>
            {reading.data && <Minute read={reading.data} name={students.find((s) => s.id === student)?.firstName} />}
            {reading.data && <Asks item={item} read={reading.data} />}
            <Players players={view.players} />
            <div className="space-y-4 print:hidden">
              <Facts view={view} />
              {reading.data && <Copies item={item.id} student={student} read={reading.data} />}
              <Keeping item={item} used={view.players.length > 0} />
            </div>
          </>
        )}
      </aside>
    </main>
  );
}

// Page is the score with what is switched on, and its chunks.
function Page({ view, read, student }: { view: View; read: Schemas["ReadingView"]; student?: Schemas["StudentCard"] }) {
  const { item } = view;
  const [on, set] = useState<Switched>({ layers: ["chunks"] });
  const text = useQuery(scoreText(item.id, on.tablature));
  const { verses, bands, fresh } = usePage(read, on, item.id, student?.id ?? "");
  return (
    <>
      <Layers read={read} frets={read.fretted} on={on} set={set} />
      <Shown query={text}>
        {(xml) => <Score xml={xml} title={item.title} verses={verses} bands={bands} fresh={fresh} light={read.light} />}
      </Shown>
      <Chunks read={read} />
      <Passage
        key={student?.id}
        item={item}
        read={read}
        student={student}
        rung={view.players.find((p) => p.student === student?.id)?.rung}
      />
    </>
  );
}
