import { queryOptions } from "@tanstack/react-query";
import { answer, api, type Schemas } from "../api/client";
import { readStudioTime } from "../api/clock";

export type FamilyView = Schemas["FamilyView"];

const keptKey = (token: string) => `ladder.family.2.${token}`; // counted up when the view gains fields

// kept is the view as it was last seen on this device.
function kept(token: string): FamilyView | undefined {
  const text = localStorage.getItem(keptKey(token));
  return text ? JSON.parse(text) : undefined;
}

// keep lays facts that the server has over the view on this device, so that they
// stand there also when the connection drops before the view comes back.
export function keep(token: string, facts: Schemas["Fact"][]) {
  const view = kept(token);
  if (view) localStorage.setItem(keptKey(token), JSON.stringify(told(view, facts)));
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

// A piece of the sheet as it is heard.
export const modelView = (token: string, rung: string) =>
  queryOptions({
    queryKey: ["model", token, rung],
    queryFn: () => answer(api.GET("/api/family/{token}/sounds/{rung}", { params: { path: { token, rung } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

// told lays facts told since over the view.
export function told(view: FamilyView, facts: Schemas["Fact"][]): FamilyView {
  const back = new Set(facts.filter((f) => f.kind === "retracted").map((f) => f.ref));
  const add = <T extends { id: string }>(list: T[], kind: string, make: (f: Schemas["Fact"]) => T) => {
    const more = facts.filter((f) => f.kind === kind && !list.some((x) => x.id === f.id)).map(make);
    return [...list, ...more].filter((x) => !back.has(x.id));
  };
  const since = facts.filter((f) => !back.has(f.id));
  const days = since.findLast((f) => f.kind === "days_set");
  const treat = since.findLast((f) => f.kind === "treat_set" || f.kind === "treat_dropped");
  const counting = view.treat?.name === treat?.text ? view.treat?.done : 0;
  return {
    ...view,
    ...(days && { weekdays: days.text?.split(" ").map(Number) ?? [], budget: days.minutes ?? 0 }),
    ...(treat && {
      treat:
        treat.kind === "treat_set"
          ? {
              name: treat.text ?? "",
              counts: treat.outcome === "days" ? ("days" as const) : ("footholds" as const),
              goal: treat.count ?? 1,
              done: counting ?? 0,
            }
          : undefined,
    }),
    ticks: add(view.ticks, "ticked", (f) => ({ id: f.id, day: f.day ?? "", key: f.text ?? "" })),
    days: add(view.days, "practised", (f) => ({
      id: f.id,
      day: f.day ?? "",
      minutes: f.minutes ?? 0,
      felt: f.text ?? "",
    })),
    questions: [
      ...view.questions,
      ...facts
        .filter((f) => f.kind === "question_asked" && !view.questions.includes(f.text ?? ""))
        .map((f) => f.text ?? ""),
    ],
  };
}
