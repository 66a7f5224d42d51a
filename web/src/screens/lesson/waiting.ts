import type { Schemas } from "../../api/client";
import type { Waiting } from "../../api/outbox";
import type { LessonView } from "./LessonScreen";

type Entry = Schemas["Entry"];
export type Noted = Entry & { waiting?: boolean };

// withWaiting echoes marks that the server does not have yet: it shows each as
// told, and sets the mark that was touched. What follows from a mark is for
// the server to say.
export function withWaiting(view: LessonView, waiting: Waiting[]): LessonView {
  const mine = waiting.filter((w) => !w.refused && w.fact.student === view.student.id).map((w) => w.fact);
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
      waiting: true,
    });
  }
  return { ...view, state, opened, rungs, noted };
}
