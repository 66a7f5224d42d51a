import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import { type ReactNode, useState } from "react";
import type { Schemas } from "../../api/client";
import { yearView } from "../../api/views";
import { Button } from "../../parts/Button";
import { months } from "../../parts/dates";
import { Shown } from "../../parts/Told";
import { length, useUnits } from "../../parts/units";
import { namedDay, plural, shortDay, strandMarks, strandNames } from "../../parts/words";

type View = Schemas["YearView"];
type Week = Schemas["YearView"]["weeks"][number];

// Year is what a year brought, as pictures with words beside each.
export function Year({ student }: { student: string }) {
  const [back, go] = useState(0);
  const query = useQuery({ ...yearView(student, back), placeholderData: keepPreviousData });
  return (
    <Shown query={query}>
      {(view) => (
        <section aria-label="The year" className="space-y-4 rounded bg-raised p-4 lg:col-span-2">
          <div className="flex flex-wrap items-center gap-3">
            <h2 className="text-head">
              {dated(view.weeks[0]?.from ?? view.today)} to{" "}
              {dated(view.back === 0 ? view.today : (view.weeks.at(-1)?.from ?? view.today))}
            </h2>
            <span className="screen-only flex items-center gap-2">
              <Link
                to="/students/$student/report"
                params={{ student }}
                className="font-[620] underline underline-offset-4"
              >
                Term report
              </Link>
              <a
                href={`/api/students/${student}/can-play.pdf`}
                download
                className="font-[620] underline underline-offset-4"
              >
                What {view.student.firstName} can play
              </a>
              {view.earlier && <Button onClick={() => go(back + 1)}>A year earlier</Button>}
              {back > 0 && <Button onClick={() => go(back - 1)}>A year later</Button>}
              <Button look="quiet" onClick={() => window.print()}>
                Print
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
  const rows = ["Lessons", ...strands.map((s) => strandNames[s] ?? s), "Polished", "Old pieces heard", "Skills gained"];
  const home = 26 + rows.length * row;
  const tall = home + 92;
  const most = Math.max(1, ...weeks.map((w) => w.heard.length));
  return (
    <figure>
      <svg viewBox={`0 0 ${wide} ${tall}`} className="w-full">
        <title>{`A year of ${student.firstName}, week by week`}</title>
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
                <At key={day} student={student.id} place="lesson" day={day} says={`Lesson of ${namedDay(day)}`}>
                  <rect x={x - 4} y={y(0) - 4 + n * 5} width={8} height={8} rx={2} className="fill-ink" />
                </At>
              ))}
              {w.missed.length > 0 && w.lessons.length === 0 && (
                <path
                  d={`M${x - 4} ${y(0) - 4}l8 8m0-8l-8 8`}
                  className="stroke-soft"
                  strokeWidth={1.5}
                  aria-label={`No lesson on ${namedDay(w.missed[0] ?? w.from)}`}
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
                  says={`${w.skills.length} gained: ${w.skills.join(", ")}`}
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
          Days at home,
        </text>
        <text x={0} y={home + 42} className="fill-soft text-[13px]">
          of those asked for
        </text>
        <text x={0} y={home + 76} className="fill-ink text-[13px]">
          How it felt
        </text>
      </svg>
      <figcaption className="mt-1">
        <p>
          {plural(counts.lessons, "lesson")} given{counts.missed > 0 && `, ${counts.missed} not`};{" "}
          {plural(counts.footholds, "foothold")}
          {counts.polished > 0 && `, ${plural(counts.polished, "piece")} polished`}; {plural(counts.skills, "skill")}{" "}
          gained; old pieces heard {plural(counts.heard, "time")}.{" "}
          {counts.asked > 0 && `Practised on ${counts.days} days, ${counts.asked} were asked for. `}
          {felt(weeks)}
        </p>
        <details className="screen-only mt-1">
          <summary className="cursor-pointer text-soft">In words, week by week</summary>
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
          says={`Week of ${shortDay(week.from)}: ${week.days} days of ${week.asked}`}
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
          <title>{words(week.felt)}</title>
        </path>
      )}
      {heavy > 0 && (
        <path
          d={`M${x - 5} ${y + 74}l5 ${3 + Math.min(heavy, 5) * 2}l5 ${-3 - Math.min(heavy, 5) * 2}z`}
          className="fill-warn"
        >
          <title>{words(week.felt)}</title>
        </path>
      )}
    </>
  );
}

const words = (told: Record<string, number>) =>
  Object.entries(told)
    .sort(([, a], [, b]) => b - a)
    .map(([word, n]) => `${word} ${n}×`)
    .join(", ");

function felt(weeks: Week[]) {
  const all: Record<string, number> = {};
  for (const w of weeks) for (const [word, n] of Object.entries(w.felt)) all[word] = (all[word] ?? 0) + n;
  return Object.keys(all).length > 0 ? `How it felt, as told: ${words(all)}.` : "";
}

function inWords(w: Week) {
  return [
    w.lessons.length > 0 ? plural(w.lessons.length, "lesson") : w.missed.length > 0 ? "no lesson" : "",
    w.footholds.length > 0 ? `footholds: ${w.footholds.map((f) => f.title).join(", ")}` : "",
    w.polished.length > 0 ? `polished: ${w.polished.join(", ")}` : "",
    w.skills.length > 0 ? `gained: ${w.skills.join(", ")}` : "",
    w.heard.length > 0 ? `heard: ${w.heard.join(", ")}` : "",
    w.asked + w.days > 0 ? `practised ${w.days} of ${w.asked} days` : "",
    words(w.felt),
  ]
    .filter(Boolean)
    .join("; ");
}

const bands = [
  { key: "ahead", name: "ahead", fill: "fill-ahead" },
  { key: "now", name: "now", fill: "fill-now" },
  { key: "upkeep", name: "upkeep", fill: "fill-keep" },
] as const;

// Minutes draws how the minutes of lessons, sheets and ticks lay in the three bands, beside the
// share of upkeep that the approach asks for.
function Minutes({ view }: { view: View }) {
  const { spent, wish } = view;
  const kinds = [
    { name: "In lessons", of: spent.lesson },
    { name: "Asked at home", of: spent.asked },
    { name: "Ticked at home", of: spent.ticked },
  ].map((k) => ({ ...k, all: k.of.now + k.of.upkeep + k.of.ahead }));
  if (kinds.every((k) => k.all === 0)) return null;
  const share = (n: number, all: number) => Math.round((100 * n) / all);
  return (
    <figure>
      <h3>Minutes by band</h3>
      <svg viewBox="0 0 500 120" className="mt-1 w-full" role="img" aria-label="Minutes by band">
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
          upkeep asked for: {Math.round(100 * wish)} %
        </text>
      </svg>
      <figcaption>
        {kinds
          .filter((k) => k.all > 0)
          .map((k) => `${k.name}: ${bands.map((b) => `${b.name} ${k.of[b.key]}`).join(", ")} of ${k.all} minutes`)
          .join(". ")}
        .
      </figcaption>
    </figure>
  );
}

// Points draws the first mark of each standing point on each piece.
function Points({ view }: { view: View }) {
  if (view.points.length === 0) return null;
  return (
    <figure>
      <h3>Standing points, at first on each piece</h3>
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
                  aria-label={`${m.title}, ${namedDay(m.day)}: ${m.met ? "met" : "not yet"}`}
                  title={`${m.title}, ${namedDay(m.day)}: ${m.met ? "met" : "not yet"}`}
                  className="grid size-7 place-items-center"
                >
                  <span
                    className={`size-4 rounded-full border-[1.5px] ${m.met ? "border-keep bg-keep" : "border-warn"}`}
                  />
                </Link>
              ))}
            </span>
            <span className="text-soft">
              {p.marks.filter((m) => m.met).length} of {p.marks.length} met
              {p.gone && ", minded no more"}
            </span>
          </li>
        ))}
      </ul>
    </figure>
  );
}

const measures = [
  { key: "stature", name: "Stature" },
  { key: "elbow", name: "Elbow above the seat" },
  { key: "lowerLeg", name: "Lower leg" },
] as const;

// Grown tells the student's growth as it was measured.
function Grown({ view }: { view: View }) {
  useUnits();
  const { grown } = view;
  if (grown.length === 0) return null;
  return (
    <figure>
      <h3>Measured</h3>
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-left text-soft">
            <th className="font-normal">Day</th>
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
