import { queryOptions, useQuery } from "@tanstack/react-query";
import { answer, api, asked, queries, type Schemas, seenAt } from "./client";
import { readStudioTime } from "./clock";

const quiet = 4_000; // ms after the day came, in which the page does what it was opened for
const lasts = 600_000; // ms in which what is at hand is not fetched again
let unheard = !globalThis.navigator?.serviceWorker?.controller; // what came before the worker heard, it did not keep

// keepAtHand fetches what the lessons of today need, for the worker to keep, so that each opens
// without a connection. It waits until the worker hears this page, which it may do later than it
// is ready.
async function keepAtHand(day: Schemas["DayView"]) {
  const workers = navigator.serviceWorker;
  if (!workers) return; // nobody would keep it
  if (!workers.controller) {
    await new Promise((heard) => workers.addEventListener("controllerchange", heard, { once: true }));
  }
  const staleTime = unheard ? 0 : lasts;
  unheard = false;
  for (const { student } of day.segments) {
    await queries.prefetchQuery({ ...lessonView(student), staleTime });
    await queries.prefetchQuery({ ...ladderView(student), staleTime });
    await queries.prefetchQuery({ ...weekView(student), staleTime });
  }
}

// The views of the app, one query each. A student's views share a key, so
// that a mark refreshes them all.
export const dayView = queryOptions({
  queryKey: ["day"],
  queryFn: async (context) => {
    const from = Date.now();
    const day = await asked(() => api.GET("/api/day"))(context);
    if (seenAt(day) === undefined) {
      readStudioTime(day.now, from);
      setTimeout(() => void keepAtHand(day), quiet);
    }
    return day;
  },
  refetchInterval: 60_000,
});

// The lessons of another day than today.
export const dayOfLessons = (date: string) =>
  queryOptions({
    queryKey: ["day", "lessons", date],
    queryFn: asked(() => api.GET("/api/day", { params: { query: { date } } })),
    staleTime: 60_000,
  });

const ofStudent = (student: string) => ({ params: { path: { student } } });

export const studentView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "kept"],
    queryFn: asked(() => api.GET("/api/students/{student}", ofStudent(student))),
  });

export const ladderView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "ladder"],
    queryFn: asked(() => api.GET("/api/students/{student}/ladder", ofStudent(student))),
    staleTime: 3_000, // fetched with the page, not again when it shows
  });

// The lesson of a day; of today or the next for none.
export const lessonView = (student: string, day?: string) =>
  queryOptions({
    queryKey: ["student", student, "lesson", day],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/lesson", { params: { path: { student }, query: day ? { day } : {} } }),
    ),
    refetchInterval: 5_000, // a second device may be marking too
  });

// What the rest of a running lesson comes to, at a minute of it.
export const paceView = (student: string, block: string, minute: number) =>
  queryOptions({
    queryKey: ["student", student, "pace", block, minute],
    queryFn: () =>
      answer(
        api.GET("/api/students/{student}/lesson/pace", {
          params: { path: { student }, query: { block, minute } },
        }),
      ),
    placeholderData: (before) => before,
  });

export const seatView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "seat"],
    queryFn: () => answer(api.GET("/api/students/{student}/seat", ofStudent(student))),
  });

// The instruments that students may play: the program's and the studio's own.
export const instrumentsView = queryOptions({
  queryKey: ["instruments"],
  queryFn: asked(() => api.GET("/api/instruments")),
  staleTime: 60_000,
});

// A seat tried out with other numbers.
export const seatTry = (ask: Schemas["SeatAsk"]) =>
  queryOptions({
    queryKey: ["seat", ask],
    queryFn: () => answer(api.POST("/api/seat", { body: ask })),
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY, // it depends on the numbers only
  });

export const activitiesView = queryOptions({
  queryKey: ["activities"],
  queryFn: () => answer(api.GET("/api/activities")),
});

// The sheet that the lesson of a day gave, in a revision; the last given for none.
export const weekView = (student: string, day?: string, revision?: number) =>
  queryOptions({
    queryKey: ["student", student, "week", day, revision],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/week", {
        params: { path: { student }, query: { ...(day && { day }), ...(revision && { revision }) } },
      }),
    ),
  });

// What may be added to a student's sheet, by words of its title.
export const addableView = (student: string, find: string) =>
  queryOptions({
    queryKey: ["student", student, "addable", find],
    queryFn: () =>
      answer(api.GET("/api/students/{student}/addable", { params: { path: { student }, query: { find } } })),
  });

// The sheets of a day's lessons; of today's for none.
export const sheetsView = (date?: string) =>
  queryOptions({
    queryKey: ["sheets", date],
    queryFn: asked(() => api.GET("/api/sheets", { params: { query: date ? { date } : {} } })),
  });

// The lessons of a day laid out; of today for none.
export const todayView = (date?: string) =>
  queryOptions({
    queryKey: ["day", "today", date],
    queryFn: asked(() => api.GET("/api/today", { params: { query: date ? { date } : {} } })),
  });

export const overviewView = queryOptions({
  queryKey: ["overview"],
  queryFn: () => answer(api.GET("/api/overview")),
});

// A term at a glance: the one that began on a day, or the newest for none.
export const termView = (from?: string) =>
  queryOptions({
    queryKey: ["overview", "term", from],
    queryFn: asked(() => api.GET("/api/term", { params: { query: from ? { from } : {} } })),
  });

export const accountView = queryOptions({ queryKey: ["account"], queryFn: asked(() => api.GET("/api/account")) });

export const mailboxView = queryOptions({
  queryKey: ["mailbox"],
  queryFn: () => answer(api.GET("/api/mailbox")),
  refetchInterval: 10_000,
});

export const calendarView = queryOptions({ queryKey: ["calendar"], queryFn: asked(() => api.GET("/api/calendar")) });

// The record with so many of its last entries; with a first few for none.
export const recordView = (student: string, most?: number) =>
  queryOptions({
    queryKey: ["student", student, "record", most],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/record", { params: { path: { student }, query: most ? { most } : {} } }),
    ),
  });

export const yearView = (student: string, back: number) =>
  queryOptions({
    queryKey: ["student", student, "year", back],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/year", { params: { path: { student }, query: back ? { back } : {} } }),
    ),
  });

export const reportView = (student: string, from?: string) =>
  queryOptions({
    queryKey: ["student", student, "report", from],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/report", { params: { path: { student }, query: from ? { from } : {} } }),
    ),
  });

export const eventsView = queryOptions({
  queryKey: ["events"],
  queryFn: asked(() => api.GET("/api/events")),
});

export const eventView = (event: string, earlier: number) =>
  queryOptions({
    queryKey: ["events", event, earlier],
    queryFn: asked(() =>
      api.GET("/api/events/{event}", { params: { path: { event }, query: earlier ? { earlier } : {} } }),
    ),
  });

export const hoursView = queryOptions({
  queryKey: ["hours"],
  queryFn: asked(() => api.GET("/api/hours")),
});

export const hourView = (hour: string) =>
  queryOptions({
    queryKey: ["hours", hour],
    queryFn: asked(() => api.GET("/api/hours/{hour}", { params: { path: { hour } } })),
  });

// Who could play with a student's pieces in hand; it reads every student, so it is asked for by a touch.
export const duetsView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "duets"],
    queryFn: asked(() => api.GET("/api/students/{student}/duets", { params: { path: { student } } })),
  });

export const reportsView = (from?: string) =>
  queryOptions({
    queryKey: ["reports", from],
    queryFn: asked(() => api.GET("/api/reports", { params: { query: from ? { from } : {} } })),
  });

// What a student from elsewhere can do, and what to ask after next.
export const placementView = (student: string, skip: string[]) =>
  queryOptions({
    queryKey: ["student", student, "placement", skip],
    queryFn: asked(() =>
      api.GET("/api/students/{student}/placement", { params: { path: { student }, query: { skip } } }),
    ),
  });

export const approachView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "approach"],
    queryFn: asked(() => api.GET("/api/students/{student}/approach", ofStudent(student))),
  });

export const effectsView = (student: string, question: string, school: string) =>
  queryOptions({
    queryKey: ["student", student, "effects", question, school],
    queryFn: () =>
      answer(
        api.GET("/api/students/{student}/approach/{question}/{school}", {
          params: { path: { student, question, school } },
        }),
      ),
  });

// The shelf with the loads for a student; of a typical one for the empty id.
export const shelfView = (student: string) =>
  queryOptions({
    queryKey: ["shelf", student],
    queryFn: async ({ client, queryKey }) => {
      const part = (from: number) =>
        answer(api.GET("/api/shelf", { params: { query: { from, ...(student && { student }) } } }));
      let shelf = await part(0);
      while (shelf.next > 0) {
        client.setQueryData(queryKey, shelf); // a long shelf is shown as far as it has come
        const more = await part(shelf.next);
        shelf = {
          ...shelf,
          next: more.next,
          items: [...shelf.items, ...more.items],
          loads: { ...shelf.loads, ...more.loads },
        };
      }
      return shelf;
    },
  });

export const forecastsView = queryOptions({
  queryKey: ["forecasts"],
  queryFn: () => answer(api.GET("/api/forecasts")),
});

export const skillsView = queryOptions({
  queryKey: ["skills"],
  queryFn: () => answer(api.GET("/api/skills")),
  staleTime: Number.POSITIVE_INFINITY, // it changes with the program only
});

export const itemView = (item: string) =>
  queryOptions({
    queryKey: ["item", item],
    queryFn: () => answer(api.GET("/api/items/{item}", { params: { path: { item } } })),
  });

// An exercise is made from its specification and nothing else.
export const exerciseMade = (exercise: string, instrument: string) =>
  queryOptions({
    queryKey: ["exercise", instrument, exercise],
    queryFn: () => answer(api.POST("/api/exercise", { body: { exercise, instrument } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

// What a student can listen to and answer; an empty student is anybody.
export const listenView = (student: string) =>
  queryOptions({
    queryKey: ["student", student, "listening"],
    queryFn: () => answer(api.GET("/api/listening", { params: { query: { student: student || undefined } } })),
  });

// A score on the shelf does not change.
export const scoreText = (item: string, tablature?: "under" | "instead", minor = false) =>
  queryOptions({
    queryKey: ["score", item, tablature, minor],
    queryFn: () =>
      answer(
        api.GET("/api/items/{item}/score", {
          params: { path: { item }, query: { tablature, minor: minor || undefined } },
          parseAs: "text",
        }) as Promise<{ data?: string; error?: unknown; response: Response }>,
      ),
    staleTime: Number.POSITIVE_INFINITY,
  });

// An item's score as read for a student; for anybody for the empty id.
export const readingView = (item: string, student: string) =>
  queryOptions({
    queryKey: ["reading", item, student],
    queryFn: () =>
      answer(api.GET("/api/items/{item}/reading", { params: { path: { item }, query: student ? { student } : {} } })),
  });

// One kind of annotation over it.
export const layerView = (item: string, layer: string, student: string) =>
  queryOptions({
    queryKey: ["layer", item, student, layer],
    queryFn: () =>
      answer(
        api.GET("/api/items/{item}/layers/{layer}", {
          params: { path: { item, layer }, query: student ? { student } : {} },
        }),
      ),
  });

export const wordsView = queryOptions({ queryKey: ["words"], queryFn: () => answer(api.GET("/api/words")) });

export const useDay = () => useQuery(dayView);
