import { say } from "../words/say";
import type { Schemas } from "./client";
import type { Fact } from "./outbox";

// Marks show at once, before the server has them: echo lays facts that a view does
// not hold yet over it. It sets what was touched and nothing else; what follows
// from a mark is for the server to say. One fold serves every view: each case touches
// the fields that the view has; of kinds that are not here, all is for the server to
// say.

type Lesson = Schemas["LessonView"];
type Home = Schemas["FamilyView"];
type Week = Schemas["WeekView"];
export type Noted = Schemas["Entry"] & { waiting?: boolean };

export type View = Partial<
  Pick<Lesson, "rungs" | "plan" | "state" | "opened" | "day" | "remote" | "rating" | "asked"> &
    Pick<Home, "ticks" | "days" | "questions" | "weekdays" | "budget" | "treat"> &
    Pick<Week, "sheet" | "lines">
> & { noted?: Noted[] };

// echo lays facts over a view; unsent are the ids of those that wait.
export function echo<V extends View>(view: V, student: string, facts: Fact[], unsent = new Set<string>()): V {
  const mine = facts.filter((f) => f.student === student);
  if (mine.length === 0) return view;
  const out = structuredClone(view);
  for (const fact of mine) {
    if (out.noted?.some((e) => e.fact.id === fact.id)) continue;
    touch(out, fact);
    note(out, fact, unsent.has(fact.id));
  }
  return out;
}

const isNew = (list: { id: string }[] | undefined, id: string) => list !== undefined && !list.some((x) => x.id === id);

function touch(v: View, { id, at, body }: Fact) {
  const rung = "rung" in body ? v.rungs?.find((r) => r.id === body.rung) : undefined;
  const point = "point" in body ? rung?.points.find((p) => p.key === body.point) : undefined;
  switch (body.kind) {
    case "point_marked":
      if (point) point.state = body.state;
      if (rung && body.state === "met" && rung.held === body.point) rung.held = ""; // the server says which comes next
      return;
    case "point_held":
      if (rung) rung.held = body.point;
      return;
    case "spot_noted":
      if (isNew(rung?.spots, id)) rung?.spots.push({ id, where: body.where, goal: body.goal, done: 0 });
      return;
    case "spot_drilled": {
      const spot = rung?.spots.find((s) => s.id === body.spot);
      if (spot) spot.done = Math.max(spot.done, body.run);
      return;
    }
    case "taught":
      if (rung) rung.taught ??= at;
      return;
    case "polished":
      if (rung) rung.polished = true;
      return;
    case "rung_parked":
      if (rung) rung.state = "parked";
      return;
    case "rung_moved": {
      if (!v.rungs || !rung) return;
      const rest = v.rungs.filter((r) => r !== rung);
      const below = rest.findIndex((r) => r.id === body.after);
      const foot = rest.findIndex((r) => r.strand === rung.strand);
      rest.splice(below >= 0 ? below + 1 : Math.max(foot, 0), 0, rung);
      v.rungs = rest;
      return;
    }
    case "target_set":
      if (rung) rung.target = body.day;
      return;
    case "target_dropped":
      if (rung) rung.target = "";
      return;
    case "lesson_opened":
      if (v.state === "planned" && v.day === body.day) [v.state, v.opened] = ["open", at];
      return;
    case "lesson_remote":
      if (v.day === body.day) v.remote = body.remote;
      return;
    case "lesson_rated":
      if (v.day === body.day) v.rating = body.rating;
      return;
    case "lesson_length":
      if (v.plan && v.day === body.day) v.plan.minutes = body.minutes;
      return;
    case "block_timed": {
      const block = v.plan?.blocks.find((b) => b.key === body.block);
      if (block) [block.minutes, block.pinned] = [body.minutes, true];
      return;
    }
    case "question_answered":
      if (v.asked) v.asked = v.asked.filter((q) => q.id !== body.question);
      return;
    case "ticked":
      if (isNew(v.ticks, id)) v.ticks?.push({ id, day: body.day, key: body.line });
      return;
    case "practised":
      if (isNew(v.days, id)) v.days?.push({ id, day: body.day, minutes: body.minutes ?? 0, felt: body.felt ?? "" });
      return;
    case "question_asked":
      if (v.questions && !v.questions.includes(body.text)) v.questions.push(body.text);
      return;
    case "days_set":
      if (v.weekdays) [v.weekdays, v.budget] = [body.weekdays, body.minutes ?? 0];
      return;
    case "treat_set": {
      const done = v.treat?.name === body.name ? v.treat.done : 0;
      v.treat = { name: body.name, counts: body.counts, goal: body.goal, done };
      return;
    }
    case "treat_dropped":
      v.treat = undefined;
      return;
    case "line_struck": {
      const line = v.lines?.find((l) => l.key === body.line);
      if (!v.sheet || !line) return;
      for (const d of v.sheet.days) d.tasks = d.tasks.filter((t) => t.key !== body.line);
      v.lines = v.lines?.filter((l) => l !== line);
      v.sheet.gone = [...(v.sheet.gone ?? []), { fact: id, title: line.title, says: line.says }];
      return;
    }
    case "line_changed": {
      const line = v.lines?.find((l) => l.key === body.line);
      if (line && body.count) line.count = body.count;
      if (line && body.hands) line.hands = body.hands;
      if (line && body.from) [line.from, line.to] = [body.from, body.to ?? body.from];
      return;
    }
    case "line_pinned": {
      const line = v.lines?.find((l) => l.key === body.line);
      if (line) line.pinned = true;
      return;
    }
    case "line_added":
      v.lines?.push({
        key: `own ${id}`,
        band: "now",
        title: say("parts.also"),
        says: body.text ?? "",
        count: 0,
        hands: "",
        days: 0,
        own: true,
        from: 0,
        to: 0,
        stands: [],
        pinned: false,
        acts: [],
        change: [],
      });
      return;
    case "sheet_noted":
      if (v.sheet) v.sheet.word = body.text;
      return;
    case "retracted": // of what a view shows of it, the rest comes from the server
      for (const e of v.noted ?? []) if (e.fact.id === body.ref) e.back = true;
      if (v.ticks) v.ticks = v.ticks.filter((t) => t.id !== body.ref);
      if (v.days) v.days = v.days.filter((d) => d.id !== body.ref);
      return;
  }
}

// note adds a mark to what was told in the lesson.
function note(v: View, fact: Fact, waiting: boolean) {
  const { body } = fact;
  if (!v.noted || body.kind === "retracted") return;
  const rung = "rung" in body ? v.rungs?.find((r) => r.id === body.rung) : undefined;
  const point = "point" in body ? rung?.points.find((p) => p.key === body.point)?.name : undefined;
  const spot = body.kind === "spot_drilled" ? rung?.spots.find((s) => s.id === body.spot)?.where : undefined;
  v.noted.push({
    fact,
    title: rung?.title ?? "",
    point: point ?? spot ?? "",
    back: false,
    undo: [],
    note: "",
    waiting,
  });
}
