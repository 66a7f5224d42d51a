import { queryOptions } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { readStudioTime } from "../api/clock";
import { echo } from "../api/echo";

export type FamilyView = Schemas["FamilyView"];

const keptKey = (token: string) => `ladder.family.7.${token}`; // counted up when the view gains fields

// kept is the view as it was last seen on this device.
function kept(token: string): FamilyView | undefined {
  const text = localStorage.getItem(keptKey(token));
  return text ? JSON.parse(text) : undefined;
}

// keep lays facts that the server has over the view on this device, so that they
// stand there also when the connection drops before the view comes back.
export function keep(token: string, facts: Schemas["Fact"][]) {
  const view = kept(token);
  if (view) localStorage.setItem(keptKey(token), JSON.stringify(echo(view, view.student, facts)));
}

// The week that a link opens; it shows from this device while there is no
// connection.
export const familyView = (token: string) =>
  queryOptions({
    queryKey: ["family", token],
    queryFn: async () => {
      const asked = Date.now();
      const view = await answer(api.GET("/api/family/{token}", { params: { path: { token } } }));
      readStudioTime(view.now, asked);
      localStorage.setItem(keptKey(token), JSON.stringify(view));
      return view;
    },
    initialData: () => kept(token),
    initialDataUpdatedAt: 0, // ask at once whether it still holds
    refetchInterval: 60_000,
  });

// The sheets of before.
export const pastView = (token: string) =>
  queryOptions({
    queryKey: ["family-weeks", token],
    queryFn: () => answer(api.GET("/api/family/{token}/weeks", { params: { path: { token } } })),
  });

// A line of the sheet as it is heard.
export const modelView = (token: string, line: string) =>
  queryOptions({
    queryKey: ["model", token, line],
    queryFn: () => answer(api.GET("/api/family/{token}/sounds", { params: { path: { token }, query: { line } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

// What can be listened to and answered at home.
export const listeningView = (token: string) =>
  queryOptions({
    queryKey: ["listening", token],
    queryFn: () => answer(api.GET("/api/family/{token}/listening", { params: { path: { token } } })),
  });
