import { QueryClient } from "@tanstack/react-query";
import createClient from "openapi-fetch";
import { useSyncExternalStore } from "react";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

export const api = createClient<paths>({ baseUrl: "" });

// A Problem is a failure with a sentence for the person.
export class Problem extends Error {
  constructor(
    says: string,
    readonly status: number, // 0 when the server could not be reached
  ) {
    super(says);
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

// isKept tells that an answer is not of now, but what this device has kept.
export const isKept = () => since !== undefined;

function subscribe(l: () => void) {
  listeners.add(l);
  return () => listeners.delete(l);
}

// useKept gives when the server was last heard, while what is shown is kept from then.
export const useKept = () => useSyncExternalStore(subscribe, () => since);

// forgetKept drops what the worker has kept of a studio, when somebody leaves or another comes.
export async function forgetKept() {
  if ("caches" in window) await caches.delete("studio-api"); // there is none without a secure address
}

const unreachable = "The studio's server cannot be reached. Check the connection; what you mark waits here.";

// answer gives the data of a call, or throws its Problem.
export async function answer<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call.catch(() => {
    throw new Problem(unreachable, 0);
  });
  heard(response);
  if (!response.ok) {
    const detail = (error as { detail?: string } | undefined)?.detail;
    throw new Problem(detail ?? "Something went wrong; nothing was lost. Try again.", response.status);
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
