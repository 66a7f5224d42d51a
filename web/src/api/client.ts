import { QueryClient } from "@tanstack/react-query";
import createClient from "openapi-fetch";
import { useSyncExternalStore } from "react";
import { units } from "../parts/units";
import { reads, say } from "../words/say";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

export const api = createClient<paths>({ baseUrl: "" });

// A device says in which unit it shows lengths, since the server writes sentences.
api.use({
  onRequest({ request }) {
    request.headers.set("Ladder-Units", units());
    return request;
  },
  onResponse({ response }) {
    reads(response.headers.get("content-language"));
  },
});

// A Problem is a failure with a sentence for the person.
export class Problem extends Error {
  constructor(
    says: string,
    readonly status: number, // 0 when the server could not be reached
  ) {
    super(says);
  }
}

// A Clash is a change that another device was faster than: the thing as it is now, null where it was taken
// away, and with every change of both.
export type Clash = {
  present: object | null;
  merged: object;
  fields: { field: string; was: unknown; mine: unknown; theirs: unknown }[];
};

// Overtaken is the Problem of such a change.
export class Overtaken extends Problem {
  constructor(
    says: string,
    readonly clash: Clash,
  ) {
    super(says, 412);
  }
}

// Of what the worker kept: when the server was last heard, while it cannot be reached.
let since: string | undefined;
const listeners = new Set<() => void>();

function heard(response: Response) {
  const kept = response.headers.has("x-kept") ? (since ?? response.headers.get("date") ?? "") : undefined;
  if (kept === since) return;
  since = kept;
  for (const l of listeners) l();
}

function subscribe(l: () => void) {
  listeners.add(l);
  return () => listeners.delete(l);
}

// useKept gives when the server was last heard, while what is shown is kept from then.
export const useKept = () => useSyncExternalStore(subscribe, () => since);

const keptAt = new WeakMap<object, number>(); // of answers that this device had kept

// seenAt tells when an answer came from the server; undefined of one that came just now.
export const seenAt = (data: object) => keptAt.get(data);

type Call<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

// asked is a view's question: what this device has kept answers it where nothing newer is at
// hand.
export const asked =
  <T extends object>(call: () => Call<T>) =>
  async ({ client, queryKey }: { client: QueryClient; queryKey: readonly unknown[] }): Promise<T> => {
    let kept: Response | undefined;
    const data = await answer(
      call().then((got) => {
        if (got.response.headers.has("x-kept")) kept = got.response;
        return got;
      }),
    );
    if (kept && client.getQueryData(queryKey) !== undefined) throw new Problem(say("parts.unreachable"), 0);
    if (kept) keptAt.set(data, new Date(kept.headers.get("date") ?? 0).getTime());
    return data;
  };

export const recentKey = "ladder.recent"; // where somebody went lately, on this device

// forgetKept drops what this device has kept of a studio, when somebody leaves or another comes:
// what the worker saw, what was half written, and where they went.
export async function forgetKept() {
  localStorage.removeItem(recentKey);
  sessionStorage.clear();
  if ("caches" in window) await caches.delete("studio-api"); // there is none without a secure address
}

// answer gives the data of a call, or throws its Problem.
export async function answer<T>(call: Call<T>): Promise<T> {
  const { data, error, response } = await call.catch(() => {
    throw new Problem(say("parts.unreachable"), 0);
  });
  heard(response);
  if (!response.ok) {
    const { detail, clash } = (error ?? {}) as { detail?: string; clash?: Clash };
    if (detail && clash) throw new Overtaken(detail, clash);
    throw new Problem(detail ?? say("parts.serverGaveNoAnswerPage"), response.status);
  }
  return data as T;
}

export const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      networkMode: "always",
      retry: (count, error) => count < 2 && error instanceof Problem && (error.status === 0 || error.status === 503),
    },
    mutations: { networkMode: "always" },
  },
});
