import type { Schemas } from "../../api/client";
import { KeyPlace } from "../../parts/KeyPlace";
import { Score } from "../../parts/Score";
import { Tablature } from "../../parts/Tablature";
import { longDay, namedDay, weekdayOf } from "../../parts/words";
import { say } from "../../words/say";
import { Bracketed } from "./Bracketed";

type Task = Schemas["Task"];
type Props = { view: Schemas["WeekView"]; sheet: Schemas["Sheet"]; large: boolean };

// Sheet is the family's page: a row a piece, a column a day, a circle to tick
// for each task. The same on screen and on paper.
export function Sheet({ view, sheet: whole, large }: Props) {
  const sheet = { ...whole, days: whole.days.filter((d) => !d.folded) };
  const told = view.chunks.flatMap((piece) => piece.chunks).find((c) => /^\d/.test(c.says))?.says;
  const drawn = large ? view.chunks.slice(0, 1) : view.chunks; // large letters leave room for one
  const done = new Set(view.ticks.map((t) => `${t.day} ${t.key}`));
  return (
    <article
      data-testid="sheet"
      className="w-full max-w-[960px] min-w-0 flex-1 rounded bg-raised p-4 md:p-6 paper:max-w-none paper:rounded-none paper:bg-white paper:p-0 paper:text-[12px] paper:text-black"
    >
      <header className="flex flex-wrap items-end justify-between gap-2 border-b-2 border-ink pb-2 paper:border-black">
        <div>
          <h2 className="text-head">{say("week.sWeek", { firstName: view.student.firstName })}</h2>
          <p className="text-soft paper:text-black">
            {say("week.to2", { day: longDay(sheet.from) })}{" "}
            {sheet.next ? say("week.nextLesson", { day: longDay(sheet.next) }) : say("week.nextLesson2")}
          </p>
        </div>
        <p className="md:text-right paper:text-right">
          <b>{view.studio}</b>
          <br />
          {say("week.aboutMinutesDay", { budget: sheet.budget })}
        </p>
      </header>
      {sheet.word && (
        <p className="mt-2 border-l-4 border-ink pl-3 text-large paper:border-black paper:text-[14px]">{sheet.word}</p>
      )}
      <p className="py-2">
        {sheet.lines.map((r) => (
          <span key={r.code}>{r.says} </span>
        ))}
      </p>
      {drawn.length > 0 && (
        <section
          aria-label={say("week.whatBuiltWeek")}
          className="mb-2 hidden flex-wrap gap-x-6 gap-y-1 md:flex paper:flex"
        >
          <p className="w-full text-small text-soft paper:text-[12px] paper:text-black">
            {say("week.builtWeekNumbersEachSmall")}
            {told && say("week.beginsWithFinger", { told })}
          </p>
          {drawn.map((piece) => (
            <Bracketed key={piece.rung} piece={piece} />
          ))}
        </section>
      )}
      {view.cards.length > 0 && !large && (
        <section aria-label={say("week.cards")} className="mb-2 hidden flex-wrap gap-x-4 gap-y-1 md:flex paper:flex">
          {view.cards.map((c) => (
            <figure key={c.id} className="w-32 overflow-hidden rounded bg-white text-black">
              {c.xml ? (
                <Score
                  xml={c.xml}
                  title={say("week.theCard", { shown: c.shown })}
                  cut={{ bars: [1, 1], width: 420, room: 2 }}
                />
              ) : (
                <Tablature open={c.strings} notes={c.stops.map((s, i) => ({ ...s, onset: i }))} />
              )}
              <figcaption className="px-1 pb-1 text-small leading-tight first-letter:uppercase paper:text-[12px]">
                {c.shown}
              </figcaption>
            </figure>
          ))}
        </section>
      )}
      <Days sheet={sheet} done={done} />
      {large ? <Large sheet={sheet} done={done} /> : <Table sheet={sheet} done={done} />}
      {view.later.map((l) => (
        <p key={l.from} className="mt-2 border-t border-line pt-2">
          {l.says}
        </p>
      ))}
      {!sheet.days.some((d) => d.tasks.some((t) => t.band === "now")) && (
        <p className="py-4 text-soft">{say("week.nothingNewHandWeek")}</p>
      )}
      <footer className="mt-2 border-t border-line pt-2 text-soft paper:text-black">
        {say("week.tickCircleWhenDoneDay")}
        <span className="mt-5 block border-b border-line" />
      </footer>
    </article>
  );
}

// Table is the sheet as a row a piece and a column a day.
function Table({ sheet, done }: TableProps) {
  const now = rows(sheet, "now");
  return (
    <div className="hidden overflow-x-auto md:block paper:block paper:overflow-visible">
      <table className="w-full min-w-[720px] table-fixed border-collapse paper:min-w-0">
        <thead>
          <tr>
            <th className="w-[21%] pb-1 text-left font-[620]" scope="col">
              {say("week.whatWhy")}
            </th>
            {sheet.days.map((d) => (
              <th key={d.date} scope="col" className="border-l border-line px-1.5 pb-1 text-left font-[620]">
                {namedDay(d.date)}
                {d.lesson && <span className="block font-normal text-soft paper:text-black">{say("week.lesson")}</span>}
                {d.off && <span className="block font-normal text-soft paper:text-black">{say("week.free")}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {now.map(({ title, tasks, days }) => (
            <tr key={title} className="border-t border-line align-top">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal">
                <b className="font-[650]">{title}</b>
                <span className="block text-small leading-tight text-soft paper:text-[12px] paper:text-black">
                  {drilled(tasks)}
                  {each(tasks) && `${each(tasks)}. `}
                  {whyOf(tasks)}
                  {tempo(tasks)}
                </span>
                <Place tasks={tasks} />
              </th>
              {days.map((list, i) => (
                <td key={sheet.days[i]?.date} className="border-l border-line px-1.5 py-1.5">
                  {list.map((t) => (
                    <Line
                      key={t.key}
                      task={t}
                      done={done.has(`${sheet.days[i]?.date} ${t.key}`)}
                      short={each(tasks) !== ""}
                    />
                  ))}
                </td>
              ))}
            </tr>
          ))}
          <Band
            sheet={sheet}
            done={done}
            band="upkeep"
            name={say("week.oldFriends")}
            why={say("week.onceThroughWhereNoNumber")}
          />
          <Band
            sheet={sheet}
            done={done}
            band="ahead"
            name={say("week.forLater")}
            why={say("week.minuteTwoTowardsWhatComes")}
          />
        </tbody>
      </table>
    </div>
  );
}

type TableProps = { sheet: Schemas["Sheet"]; done: Set<string> };

const bandNames: Record<string, string> = {
  now: say("week.new"),
  upkeep: say("week.review"),
  ahead: say("week.preparation"),
};

// Large is the sheet for large letters: a line a task, with a circle for each of its days.
function Large({ sheet, done }: TableProps) {
  return (
    <div className="hidden md:block paper:block">
      {["now", "upkeep", "ahead"].map((band) => {
        const list = rows(sheet, band);
        return (
          list.length > 0 && (
            <section key={band} className="border-t border-line py-1.5">
              <h3 className="font-[650]">{bandNames[band]}</h3>
              <div className={band === "now" ? "" : "columns-2 gap-6"}>
                {list.map(({ title, tasks }) => (
                  <div key={title} className="leading-snug">
                    {band === "now" && (
                      <p>
                        <b className="font-[650]">{title}</b> {drilled(tasks)}
                      </p>
                    )}
                    {[...new Map(tasks.map((t) => [t.key, t])).values()].map((t) => (
                      <p key={t.key} className="flex flex-wrap gap-x-2 pl-2">
                        {sheet.days.map(
                          (d) =>
                            d.tasks.some((other) => other.key === t.key) && (
                              <span key={d.date} className="whitespace-nowrap">
                                <Tick done={done.has(`${d.date} ${t.key}`)} />
                                {weekdayOf(d.date)}
                              </span>
                            ),
                        )}
                        <span className="min-w-0 flex-1">{band === "now" ? short(t) : other(t)}</span>
                      </p>
                    ))}
                  </div>
                ))}
              </div>
            </section>
          )
        );
      })}
    </div>
  );
}

// short is a task in hand in few words.
const short = (t: Task) => [t.says.place, t.says.hand, t.says.start, t.says.times].filter(Boolean).join(", ");

// other is a task of another band.
const other = (t: Task) =>
  [
    t.do ?? (t.listen ? say("week.listenTo", { title: t.title }) : t.title),
    t.band === "upkeep" && t.count > 1 && say("count.time", { n: t.count }),
  ]
    .filter(Boolean)
    .join(", ");

// rows gathers a band's tasks by piece, day by day.
function rows(sheet: Schemas["Sheet"], band: string) {
  const titles = [...new Set(sheet.days.flatMap((d) => d.tasks.filter((t) => t.band === band).map((t) => t.title)))];
  return titles.map((title) => {
    const days = sheet.days.map((d) => d.tasks.filter((t) => t.band === band && t.title === title));
    return { title, days, tasks: days.flat() };
  });
}

function whyOf(tasks: Task[]) {
  const spot = tasks.find((t) => t.spot);
  const other = tasks.find((t) => !t.spot);
  return [spot, other?.why.code === "small-first" ? tasks.findLast((t) => !t.spot) : other]
    .filter((t) => t !== undefined)
    .map((t) => t.says.why)
    .join(" ");
}

function Line({ task, done, short }: { task: Task; done: boolean; short?: boolean }) {
  return (
    <span className="mb-1.5 block leading-tight">
      <Tick done={done} />
      <b className="font-[620]">{task.says.place}</b>
      {short && !task.spot ? (
        task.says.start && ` · ${task.says.start}`
      ) : (
        <>
          <br />
          {[task.says.times, task.says.hand, task.says.start].filter(Boolean).join(", ")}
        </>
      )}
      <Minutes of={task} />
    </span>
  );
}

// Place draws where the first chunk of a piece begins, once for the week.
function Place({ tasks }: { tasks: Task[] }) {
  const start = tasks.find((t) => t.start && t.from > 0)?.start;
  return start ? <KeyPlace start={start} /> : null;
}

// tempo says what tells how a piece goes, once for the week.
function tempo(tasks: Task[]) {
  const says = tasks.find((t) => t.says.tempo)?.says.tempo;
  return says && ` ${says.endsWith("?") ? says : `${says}.`}`;
}

// drilled says what an exercise, cards or a game ask, once for the week.
function drilled(tasks: Task[]) {
  const [first] = tasks;
  if (!first || !(first.plays ?? first.cards ?? first.steps ?? first.do)) return null;
  return <span className="block text-ink paper:text-black">{first.says.what.replace(/\.$/, "")}.</span>;
}

// each says what holds for all chunks of a piece, so that it stands once: "3 times
// each, both hands"; nothing where they differ.
function each(tasks: Task[]) {
  const chunks = tasks.filter((t) => !t.spot);
  const [first] = chunks;
  if (!first?.start || chunks.some((t) => t.count !== first.count || t.hands !== first.hands || t.inRow)) return "";
  return [say("week.timesEach", { count: first.count }), first.says.hand].filter(Boolean).join(", ");
}

// Tick is a circle to tick on paper; one that the family ticked is full.
const Tick = ({ done }: { done: boolean }) => (
  <span
    {...(done ? { role: "img", "aria-label": say("week.done") } : { "aria-hidden": true })}
    className={`mr-1 inline-block size-3 rounded-full border border-ink align-[-1px] paper:border-black ${done ? "bg-ink paper:bg-black" : ""}`}
  />
);

const Minutes = ({ of: task }: { of: Task }) =>
  task.minutes > 0 && (
    <span className="text-soft paper:text-black">
      {" "}
      <span className="whitespace-nowrap">· {say("parts.minutesShort", { n: task.minutes })}</span>
    </span>
  );

type BandProps = { sheet: Schemas["Sheet"]; done: Set<string>; band: string; name: string; why: string };

// Band is one row for all pieces of a band.
function Band({ sheet, done, band, name, why }: BandProps) {
  if (!sheet.days.some((d) => d.tasks.some((t) => t.band === band))) return null;
  return (
    <tr className="border-t border-line align-top">
      <th scope="row" className="py-1.5 pr-2 text-left font-normal">
        <b className={`font-[650] ${band === "upkeep" ? "text-keep" : "text-ahead"} paper:text-black`}>{name}</b>
        <span className="block text-small leading-tight text-soft paper:text-[12px] paper:text-black">{why}</span>
      </th>
      {sheet.days.map((d) => (
        <td key={d.date} className="border-l border-line px-1.5 py-1.5">
          {d.tasks
            .filter((t) => t.band === band)
            .map((t) => (
              <span key={t.key} className="mb-1 block leading-tight">
                <Tick done={done.has(`${d.date} ${t.key}`)} />
                {other(t)}
                <Minutes of={t} />
              </span>
            ))}
        </td>
      ))}
    </tr>
  );
}

// bandWords says what is done with a task of a band.
const bandWords = (t: Task) => (t.band === "upkeep" ? say("week.reviewLine") : (t.do ?? say("week.justListen")));

// Days is the same sheet for a phone: one day after another.
function Days({ sheet, done }: { sheet: Schemas["Sheet"]; done: Set<string> }) {
  return (
    <ol className="md:hidden paper:hidden">
      {sheet.days.map((d) => (
        <li key={d.date} className="border-t border-line py-2">
          <h3>
            {longDay(d.date)}
            {d.lesson && <span className="font-normal text-soft">{say("week.lesson2")}</span>}
          </h3>
          <ul className="mt-1 space-y-1">
            {d.tasks.map((t) => (
              <li key={t.key} className="flex gap-2">
                <span className="min-w-0 flex-1">
                  <b className="font-[620]">{t.title}</b>{" "}
                  {t.band === "now" ? (
                    <Line task={t} done={done.has(`${d.date} ${t.key}`)} />
                  ) : (
                    <span className="text-soft">{bandWords(t)}</span>
                  )}
                </span>
                {t.band !== "now" && <span className="text-soft">{say("parts.minutesShort", { n: t.minutes })}</span>}
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ol>
  );
}
