import type { Body } from "../../api/outbox";
import type { LessonView } from "./view";

// told are the marks of a kind that were told in this lesson and stand, in order.
export function told<K extends Body["kind"]>(view: Pick<LessonView, "noted">, kind: K) {
  const is = (b: Body): b is Extract<Body, { kind: K }> => b.kind === kind;
  return view.noted
    .filter((e) => !e.back)
    .map((e) => e.fact.body)
    .filter(is);
}
