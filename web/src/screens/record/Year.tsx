import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { yearView } from "../../api/views";
import { Button } from "../../parts/Button";
import { months } from "../../parts/dates";
import { counted } from "../../parts/felts";
import { Shown } from "../../parts/Told";
import { length, useUnits } from "../../parts/units";
import { namedDay, shortDay, strandMarks, strandNames } from "../../parts/words";
import { say } from "../../words/say";

type View = Schemas["YearView"];
type Week = Schemas["YearView"]["weeks"][number];

// Year is what a year brought, as pictures with words beside each.
export function Year({ student }: { student: string }) {
  const [back, go] = useState(0);
  const query = useQuery({ ...yearView(student, back), placeholderData: keepPreviousData });
  return (
    <Shown query={query}>
      {(view) => (
        <section aria-label={say("record.theYear")} className="space-y-4 rounded bg-raised p-4 lg:col-span-2">
          <div className="flex flex-wrap items-center gap-3">
            <h2 className="text-head">
              {say("record.to2", {
                dated: dated(view.weeks[0]?.from ?? view.today),
                dated2: dated(view.back === 0 ? view.today : (view.weeks.at(-1)?.from ?? view.today)),
              })}
            </h2>
            <span className="screen-only flex items-center gap-2">
              <Link
                to="/students/$student/report"
                params={{ student }}
                className="font-[620] underline underline-offset-4"
              >
                {say("record.termReport")}
              </Link>
              <a
                href={`/api/students/${student}/can-play.pdf`}
                download
                className="font-[620] underline underline-offset-4"
              >
                {say("record.whatCanPlay", { firstName: view.student.firstName })}
              </a>
              {view.earlier && <Button onClick={() => go(back + 1)}>{say("record.yearEarlier")}</Button>}
              {back > 0 && <Button onClick={() => go(back - 1)}>{say("record.yearLater")}</Button>}
              <Button look="quiet" onClick={() => window.print()}>
                {say("record.print")}
              </Button>
            </span>
          </div>
          <Band view={view} />
          <div className="grid gap-6 lg:grid-cols-2">
            <Minutes view={view} />
            <Points view={view} />
            <Grown view={view} />
          </div>
        </section>
      )}
    </Shown>
  );
}

const dated = (day: string) => `${shortDay(day)} ${day.slice(0, 4)}`;

const left = 150;
const column = 19;
const wide = left + 52 * column + 6;
const strands = ["book", "technique", "reading", "repertoire"] as const;
const row = 24;

// Band draws the weeks from left to right: lessons and breaks, footholds by strand, what was
// polished and heard, days at home and how they felt.
function Band({ view }: { view: View }) {
  const { weeks, counts, student } = view;
  const at = (i: number) => left + i * column;
  const rows = [
    say("record.lessons"),
    ...strands.map((s) => strandNames[s] ?? s),
    say("record.performanceReady"),
    say("record.oldPiecesHeard"),
    say("record.skillsGained"),
  ];
  const home = 26 + rows.length * row;
  const tall = home + 92;
  const most = Math.max(1, ...weeks.map((w) => w.heard.length));
  return (
    <figure>
      <svg viewBox={`0 0 ${wide} ${tall}`} className="w-full">
        <title>{say("record.yearWeekWeek", { firstName: student.firstName })}</title>
        {weeks.map((w, i) => (
          <g key={w.from}>
            {!w.term && <rect x={at(i)} y={20} width={column} height={tall - 20} className="fill-faint" />}
            {w.from.slice(5, 7) !== weeks[i - 1]?.from.slice(5, 7) &&
              (i > 0 || weeks[2]?.from.slice(5, 7) === w.from.slice(5, 7)) &&
              at(i) < wide - 30 && (
                <text x={at(i) + 2} y={14} className="fill-soft text-[13px]">
                  {months[Number(w.from.slice(5, 7)) - 1]?.slice(0, 3)}
                </text>
              )}
          </g>
        ))}
        {rows.map((name, r) => (
          <g key={name}>
            <text x={0} y={26 + r * row + 16} className="fill-ink text-[13px]">
              {name}
            </text>
            <line
              x1={left}
              x2={wide}
              y1={26 + (r + 1) * row}
              y2={26 + (r + 1) * row}
              className="stroke-line"
              strokeWidth={0.5}
            />
          </g>
        ))}
        {weeks.map((w, i) => {
          const x = at(i) + column / 2;
          const y = (r: number) => 26 + r * row + row / 2;
          return (
            <g key={w.from}>
              {w.lessons.map((day, n) => (
                <At
                  key={day}
                  student={student.id}
                  place="lesson"
                  day={day}
                  says={say("record.lessonOf", { day: namedDay(day) })}
                >
                  <rect x={x - 4} y={y(0) - 4 + n * 5} width={8} height={8} rx={2} className="fill-ink" />
                </At>
              ))}
              {w.missed.length > 0 && w.lessons.length === 0 && (
                <path
                  d={`M${x - 4} ${y(0) - 4}l8 8m0-8l-8 8`}
                  className="stroke-soft"
                  strokeWidth={1.5}
                  aria-label={say("record.noLesson", { day: namedDay(w.missed[0] ?? w.from) })}
                />
              )}
              {strands.map((s, r) => {
                const won = w.footholds.filter((f) => f.strand === s);
                return (
                  won.length > 0 && (
                    <At
                      key={s}
                      student={student.id}
                      place="lesson"
                      day={won[0]?.at.slice(0, 10) ?? w.from}
                      says={`${won.length > 1 ? `${won.length}: ` : ""}${won.map((f) => `${f.title}${f.part && `: ${f.part}`}`).join(", ")}`}
                    >
                      <path
                        d={strandMarks[s]}
                        transform={`translate(${x} ${y(r + 1)}) scale(1.15)`}
                        className="fill-keep"
                      />
                      {won.length > 1 && (
                        <text x={x + 6} y={y(r + 1) - 3} className="fill-ink text-[11px] font-bold">
                          {won.length}
                        </text>
                      )}
                    </At>
                  )
                );
              })}
              {w.polished.length > 0 && (
                <g>
                  <title>{w.polished.join(", ")}</title>
                  <circle cx={x} cy={y(5)} r={6.5} className="fill-none stroke-keep" strokeWidth={1.5} />
                  <circle cx={x} cy={y(5)} r={3} className="fill-keep" />
                </g>
              )}
              {w.heard.length > 0 && (
                <rect
                  x={x - 4}
                  y={y(6) + 10 - (20 * w.heard.length) / most}
                  width={8}
                  height={(20 * w.heard.length) / most}
                  className="fill-keep"
                >
                  <title>{w.heard.join(", ")}</title>
                </rect>
              )}
              {w.skills.length > 0 && (
                <At
                  student={student.id}
                  place="lesson"
                  day={w.footholds[0]?.at.slice(0, 10) ?? w.from}
                  says={say("record.gained", { skills: w.skills.length, list: w.skills.join(", ") })}
                >
                  <circle cx={x} cy={y(7)} r={7} className="fill-faint stroke-keep" strokeWidth={1.5} />
                  <text x={x} y={y(7) + 4} textAnchor="middle" className="fill-ink text-[11px] font-bold">
                    {w.skills.length}
                  </text>
                </At>
              )}
              <Home week={w} x={x} y={home} student={student.id} />
            </g>
          );
        })}
        <text x={0} y={home + 26} className="fill-ink text-[13px]">
          {say("record.daysHome")}
        </text>
        <text x={0} y={home + 42} className="fill-soft text-[13px]">
          {say("record.thoseAsked")}
        </text>
        <text x={0} y={home + 76} className="fill-ink text-[13px]">
          {say("record.howFelt")}
        </text>
      </svg>
      <figcaption className="mt-1">
        <p>
          {say("record.lessonsGiven", { lessons: counts.lessons })}
          {counts.missed > 0 && say("record.not", { missed: counts.missed })}
          {say("record.piecesLearnt", { footholds: counts.footholds })}
          {counts.polished > 0 && say("record.piecesPerformanceReady", { polished: counts.polished })}
          {say("record.skillsGainedOldPiecesHeard", { skills: counts.skills, heard: counts.heard })}{" "}
          {counts.asked > 0 && say("record.practisedDaysWereAsked", { days: counts.days, asked: counts.asked })}
          {felt(weeks)}
        </p>
        <details className="screen-only mt-1">
          <summary className="cursor-pointer text-soft">{say("record.wordsWeekWeek")}</summary>
          <ul className="mt-1 space-y-0.5">
            {weeks
              .filter((w) => w.lessons.length + w.footholds.length + w.polished.length + w.days > 0)
              .map((w) => (
                <li key={w.from}>
                  <b className="font-[620]">{shortDay(w.from)}</b>: {inWords(w)}
                </li>
              ))}
          </ul>
        </details>
      </figcaption>
    </figure>
  );
}

// At leads from a sign in a picture to the lesson or the sheet that it is about.
function At(p: { student: string; place: "lesson" | "week"; day: string; says: string; children: ReactNode }) {
  return (
    <Link
      to={`/students/$student/${p.place}`}
      params={{ student: p.student }}
      search={{ day: p.day }}
      aria-label={p.says}
    >
      <title>{p.says}</title>
      {p.children}
    </Link>
  );
}

// Home draws the days of a week at home against those that were asked for, and how they felt.
function Home({ week, x, y, student }: { week: Week; x: number; y: number; student: string }) {
  const of = (days: number) => (44 * days) / 7;
  const { light, dull: heavy } = week;
  const bars = (
    <>
      <rect
        x={x - 6}
        y={y + 50 - of(week.asked)}
        width={12}
        height={of(week.asked)}
        className="fill-none stroke-line"
        strokeWidth={1}
      />
      <rect x={x - 4} y={y + 50 - of(week.days)} width={8} height={of(week.days)} className="fill-now" />
    </>
  );
  return (
    <>
      {week.sheet && week.asked + week.days > 0 ? (
        <At
          student={student}
          place="week"
          day={week.sheet}
          says={say("record.weekDays", { day: shortDay(week.from), days: week.days, asked: week.asked })}
        >
          {bars}
        </At>
      ) : (
        bars
      )}
      {light > 0 && (
        <path
          d={`M${x - 5} ${y + 70}l5 ${-3 - Math.min(light, 5) * 2}l5 ${3 + Math.min(light, 5) * 2}z`}
          className="fill-keep"
        >
          <title>{counted(week.felt)}</title>
        </path>
      )}
      {heavy > 0 && (
        <path
          d={`M${x - 5} ${y + 74}l5 ${3 + Math.min(heavy, 5) * 2}l5 ${-3 - Math.min(heavy, 5) * 2}z`}
          className="fill-warn"
        >
          <title>{counted(week.felt)}</title>
        </path>
      )}
    </>
  );
}

function felt(weeks: Week[]) {
  const all: Record<string, number> = {};
  for (const w of weeks) for (const [word, n] of Object.entries(w.felt)) all[word] = (all[word] ?? 0) + n;
  return Object.keys(all).length > 0 ? say("record.howFelt2", { words: counted(all) }) : "";
}

function inWords(w: Week) {
  return [
    w.lessons.length > 0
      ? say("count.lesson", { n: w.lessons.length })
      : w.missed.length > 0
        ? say("record.noLesson2")
        : "",
    w.footholds.length > 0 ? say("record.learntList", { list: w.footholds.map((f) => f.title).join(", ") }) : "",
    w.polished.length > 0 ? say("record.readyList", { list: w.polished.join(", ") }) : "",
    w.skills.length > 0 ? say("record.newSkillsList", { list: w.skills.join(", ") }) : "",
    w.heard.length > 0 ? say("record.heardList", { list: w.heard.join(", ") }) : "",
    w.asked + w.days > 0 ? say("record.practisedDays", { days: w.days, asked: w.asked }) : "",
    counted(w.felt),
  ]
    .filter(Boolean)
    .join("; ");
}

const bands = [
  { key: "ahead", name: say("record.preparationBand"), fill: "fill-ahead" },
  { key: "now", name: say("record.newMaterial"), fill: "fill-now" },
  { key: "upkeep", name: say("record.reviewBand"), fill: "fill-keep" },
] as const;

// Minutes draws how the minutes of lessons, sheets and ticks lay in the three bands, beside the
// share of upkeep that the approach asks for.
function Minutes({ view }: { view: View }) {
  const { spent, wish } = view;
  const kinds = [
    { name: say("record.inLessons"), of: spent.lesson },
    { name: say("record.askedHome"), of: spent.asked },
    { name: say("record.tickedHome"), of: spent.ticked },
  ].map((k) => ({ ...k, all: k.of.now + k.of.upkeep + k.of.ahead }));
  if (kinds.every((k) => k.all === 0)) return null;
  const share = (n: number, all: number) => Math.round((100 * n) / all);
  return (
    <figure>
      <h3>{say("record.minutesKindWork")}</h3>
      <svg viewBox="0 0 500 120" className="mt-1 w-full" role="img" aria-label={say("record.minutesKindWork")}>
        {kinds.map((k, r) => {
          let x = 110;
          return (
            <g key={k.name}>
              <text x={0} y={r * 34 + 22} className="fill-ink text-[13px]">
                {k.name}
              </text>
              {k.all > 0 &&
                bands.map((b) => {
                  const w = (380 * k.of[b.key]) / k.all;
                  x += w;
                  return (
                    <g key={b.key}>
                      <rect x={x - w} y={r * 34 + 6} width={Math.max(w - 1, 0)} height={24} className={b.fill} />
                      {w > 34 && (
                        <text
                          x={x - w / 2}
                          y={r * 34 + 23}
                          textAnchor="middle"
                          className="fill-raised text-[13px] font-bold"
                        >
                          {share(k.of[b.key], k.all)} %
                        </text>
                      )}
                    </g>
                  );
                })}
            </g>
          );
        })}
        <line
          x1={490 - 380 * wish}
          x2={490 - 380 * wish}
          y1={0}
          y2={104}
          className="stroke-ink"
          strokeDasharray="4 3"
        />
        <text x={490 - 380 * wish} y={118} textAnchor="middle" className="fill-soft text-[13px]">
          {say("record.reviewAsked", { amount: Math.round(100 * wish) })}
        </text>
      </svg>
      <figcaption>
        {kinds
          .filter((k) => k.all > 0)
          .map((k) =>
            say("record.ofMinutes", {
              name: k.name,
              list: bands.map((b) => `${b.name} ${k.of[b.key]}`).join(", "),
              all: k.all,
            }),
          )
          .join(". ")}
        .
      </figcaption>
    </figure>
  );
}

const markSays = (m: Schemas["PointMark"]) => {
  const of = { title: m.title, day: namedDay(m.day) };
  return m.met ? say("record.markReached", of) : say("record.markNotYet", of);
};

// Points draws the first mark of each standing point on each piece.
function Points({ view }: { view: View }) {
  if (view.points.length === 0) return null;
  return (
    <figure>
      <h3>{say("record.goalsEveryPieceWhenPiece")}</h3>
      <ul className="mt-1 space-y-1">
        {view.points.map((p) => (
          <li key={p.name} className="flex items-center gap-2">
            <span className="w-44 shrink-0 truncate" title={p.name}>
              {p.name}
            </span>
            <span className="flex flex-wrap">
              {p.marks.map((m) => (
                <Link
                  key={m.day + m.title}
                  to="/students/$student/lesson"
                  params={{ student: view.student.id }}
                  search={{ day: m.day }}
                  aria-label={markSays(m)}
                  title={markSays(m)}
                  className="grid size-7 place-items-center"
                >
                  <span
                    className={`size-4 rounded-full border-[1.5px] ${m.met ? "border-keep bg-keep" : "border-warn"}`}
                  />
                </Link>
              ))}
            </span>
            <span className="text-soft">
              {say("record.ofReached", { done: p.marks.filter((m) => m.met).length, marks: p.marks.length })}
              {p.gone && say("record.noLongerGoal")}
            </span>
          </li>
        ))}
      </ul>
    </figure>
  );
}

const measures = [
  { key: "stature", name: say("record.stature") },
  { key: "elbow", name: say("record.elbowAboveSeat") },
  { key: "lowerLeg", name: say("record.lowerLeg") },
] as const;

// Grown tells the student's growth as it was measured.
function Grown({ view }: { view: View }) {
  useUnits();
  const { grown } = view;
  if (grown.length === 0) return null;
  return (
    <figure>
      <h3>{say("record.measured")}</h3>
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">{say("record.day")}</th>
            {measures.map((m) => (
              <th key={m.key} className="font-normal">
                {m.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {grown.slice(-6).map((g) => (
            <tr key={g.day} className="border-t border-faint">
              <td>{namedDay(g.day)}</td>
              {measures.map((m) => (
                <td key={m.key}>{g[m.key] ? length(g[m.key]) : "—"}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
