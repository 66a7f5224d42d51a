import type { Schemas } from "../../api/client";
import type { Sent, Waiting } from "../../api/outbox";
import type { LessonView } from "./LessonScreen";

type Entry = Schemas["Entry"];
export type Noted = Entry & { waiting?: boolean };

// withWaiting echoes marks that the server does not have yet, or had only after
// the view was fetched: it shows each as told, and sets the mark that was
// touched. What follows from a mark is for the server to say.
export function withWaiting(view: LessonView, waiting: Waiting[], sent: Sent[] = [], fetched = 0): LessonView {
  const unsent = new Set(waiting.map((w) => w.fact.id));
  const mine = [...sent.filter((s) => s.at > fetched), ...waiting.filter((w) => !w.refused)]
    .map((w) => w.fact)
    .filter((f) => f.student === view.student.id);
  if (mine.length === 0) return view;
  const rungs = structuredClone(view.rungs);
  let { state, opened } = view;
  const noted: Noted[] = view.noted.map((e) => ({ ...e }));
  for (const f of mine) {
    if (noted.some((e) => e.fact.id === f.id)) continue;
    const rung = rungs.find((r) => r.id === f.rung);
    const point = rung?.points.find((p) => p.key === f.point);
    const spot = rung?.spots.find((s) => s.id === f.spot);
    switch (f.kind) {
      case "point_met":
      case "point_open":
        if (point) point.state = f.kind === "point_met" ? "met" : "open";
        if (rung && f.kind === "point_met" && rung.held === f.point) rung.held = ""; // the server says which comes next
        break;
      case "point_held":
        if (rung) rung.held = f.point ?? "";
        break;
      case "spot_drilled":
        if (spot) spot.done = Math.max(spot.done, f.count ?? 0);
        break;
      case "spot_noted":
        rung?.spots.push({ id: f.id, where: f.text ?? "", goal: f.count ?? 1, done: 0 });
        break;
      case "taught":
        if (rung) rung.taught ??= f.at;
        break;
      case "lesson_opened":
        if (state === "planned") [state, opened] = ["open", f.at];
        break;
      case "retracted":
        for (const e of noted) if (e.fact.id === f.ref) e.back = true;
        continue;
    }
    noted.push({
      fact: f,
      title: rung?.title ?? "",
      point: point?.name ?? spot?.where ?? "",
      back: false,
      note: "",
      waiting: unsent.has(f.id),
    });
  }
  return { ...view, state, opened, rungs, noted };
}
