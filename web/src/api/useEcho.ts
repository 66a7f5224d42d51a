import { useMemo } from "react";
import { seenAt } from "./client";
import { echo, type View } from "./echo";
import { useOutbox } from "./outbox";

// useEcho is a student's view with all that was told since it was fetched.
export function useEcho<V extends View>(view: V, student: string, fetched: number): V {
  const { waiting, sent } = useOutbox();
  return useMemo(() => {
    const kept = waiting.filter((w) => !w.refused).map((w) => w.fact);
    const from = seenAt(view) ?? fetched;
    const late = sent.filter((s) => s.at > from).map((s) => s.fact);
    return echo(view, student, [...late, ...kept], new Set(kept.map((f) => f.id)));
  }, [view, student, fetched, waiting, sent]);
}
