import { useMemo } from "react";
import { seenAt } from "./client";
import { echo, type View } from "./echo";
import { useOutbox } from "./outbox";

// useTold is what was told since a moment: what has reached the server, and what waits.
export function useTold(from: number) {
  const { waiting, sent } = useOutbox();
  return useMemo(() => {
    const kept = waiting.filter((w) => !w.refused).map((w) => w.fact);
    const late = sent.filter((s) => s.at > from).map((s) => s.fact);
    return { late, kept };
  }, [from, waiting, sent]);
}

// useEcho is a student's view with all that was told since it was fetched.
export function useEcho<V extends View>(view: V, student: string, fetched: number): V {
  const { late, kept } = useTold(seenAt(view) ?? fetched);
  return useMemo(
    () => echo(view, student, [...late, ...kept], new Set(kept.map((f) => f.id))),
    [view, student, late, kept],
  );
}
