import { type UseMutationOptions, useMutation } from "@tanstack/react-query";
import { Fragment, type ReactNode, useState } from "react";
import { type Clash, Overtaken, queries } from "../api/client";
import { Clashed } from "./Clashed";
import { Trouble } from "./Told";

type Change<T> = { was?: T; now: T };
type Put<T> = (change: Change<T>) => Promise<unknown>;
type Options<T> = Pick<UseMutationOptions<unknown, Error, Change<T>>, "mutationKey" | "scope" | "onSettled">;
type Open = { says: string; clash: Clash };

// useKeep saves a thing that is changed as a whole. The server is told what this page saw, so that it
// takes over what another device changed meanwhile. Where both changed the same, asked shows both
// versions until the person has chosen, after a reload too; name tells the forms of a page apart.
export function useKeep<T extends object>(name: string, put: Put<T>, done?: () => void, options: Options<T> = {}) {
  const key = `ladder.clash.${location.pathname} ${name}`;
  const [open, setOpen] = useState<Open | undefined>(
    () => JSON.parse(sessionStorage.getItem(key) ?? "null") ?? undefined,
  );
  const ask = (next?: Open) => {
    if (next) sessionStorage.setItem(key, JSON.stringify(next));
    else sessionStorage.removeItem(key);
    setOpen(next);
  };
  const save = useMutation({
    mutationFn: put,
    onSuccess: async () => {
      ask();
      if (!options.onSettled) await queries.invalidateQueries();
      done?.();
    },
    onError: (error) => {
      if (error instanceof Overtaken) ask({ says: error.message, clash: error.clash });
    },
    ...options,
  });
  const leave = async () => {
    ask();
    save.reset();
    await queries.invalidateQueries();
    done?.();
  };
  const failed = save.error && !(save.error instanceof Overtaken) && <Trouble>{save.error.message}</Trouble>;
  const asked = open ? (
    <>
      <Clashed
        key={JSON.stringify(open.clash)}
        says={open.says}
        clash={open.clash}
        keep={(now) => save.mutate({ was: (open.clash.present ?? undefined) as T | undefined, now: now as T })}
        leave={leave}
        busy={save.isPending}
      />
      {failed}
    </>
  ) : (
    failed
  );
  return { asked, busy: save.isPending, kept: save.isSuccess, keep: (now: T, was?: T) => save.mutate({ was, now }) };
}

// Renewed draws a form anew, from what is kept then, each time that it was saved.
export function Renewed({ children }: { children: (done: () => void, kept: boolean) => ReactNode }) {
  const [round, again] = useState(0);
  return <Fragment key={round}>{children(() => again(round + 1), round > 0)}</Fragment>;
}
