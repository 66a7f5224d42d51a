import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { queries } from "../api/client";

// useInTurn does something for one student after another, tells how many are done, and answers with
// those for whom it failed, each with what went wrong.
export function useInTurn<T>(name: (one: T) => string, act: (one: T) => Promise<unknown>) {
  const [done, setDone] = useState(0);
  const run = useMutation({
    mutationFn: async (list: T[]) => {
      setDone(0);
      const failed: string[] = [];
      for (const one of list) {
        try {
          await act(one);
        } catch (error) {
          failed.push(`${name(one)}: ${error instanceof Error ? error.message : error}`);
        }
        setDone((n) => n + 1);
      }
      return failed;
    },
    onSettled: () => queries.invalidateQueries(),
  });
  return { ...run, done };
}
