import {
  createRootRoute,
  createRoute,
  createRouter,
  type ErrorComponentProps,
  lazyRouteComponent,
  redirect,
} from "@tanstack/react-router";
import { Problem, queries } from "./api/client";
import { dayView, ladderView } from "./api/views";
import { Frame } from "./parts/Frame";
import { StudentFrame } from "./parts/StudentFrame";
import { LadderScreen } from "./screens/ladder/LadderScreen";
import { LessonScreen } from "./screens/lesson/LessonScreen";
import { say } from "./words/say";

const root = createRootRoute();

// Failed stands in place of a page that cannot be shown; the rest of the app stays.
function Failed({ error, reset }: ErrorComponentProps) {
  return (
    <main className="mx-auto max-w-lg p-10">
      <h1 className="text-head">{say("parts.pageCannotShownJustNow")}</h1>
      <p className="my-3" role="alert">
        {error instanceof Error ? error.message : String(error)}
      </p>
      <button type="button" className="rounded border px-4 py-2" onClick={reset}>
        {say("parts.tryAgain")}
      </button>
    </main>
  );
}

const signIn = createRoute({
  getParentRoute: () => root,
  path: "/sign-in",
  validateSearch: (search): { to?: string; invitation?: string } => ({
    // only an address of this site
    to: typeof search.to === "string" && /^\/(?![/\\])/.test(search.to) ? search.to : undefined,
    invitation: typeof search.invitation === "string" ? search.invitation : undefined,
  }),
  beforeLoad: async ({ search }) => {
    const there = await queries.ensureQueryData(dayView).catch(() => undefined);
    if (there) throw redirect({ href: search.to ?? "/" }); // signed in already
  },
  component: lazyRouteComponent(() => import("./screens/signin/SignInScreen"), "SignInScreen"),
});
const reset = createRoute({
  getParentRoute: () => root,
  path: "/reset",
  component: lazyRouteComponent(() => import("./screens/signin/ResetScreen"), "ResetScreen"),
});

const confirm = createRoute({
  getParentRoute: () => root,
  path: "/confirm",
  component: lazyRouteComponent(() => import("./screens/signin/ConfirmScreen"), "ConfirmScreen"),
});

// Everything else needs a sign-in; the day is loaded first because the frame
// shows it.
const inside = createRoute({
  getParentRoute: () => root,
  id: "inside",
  component: Frame,
  beforeLoad: async ({ location }) => {
    // the ladder is fetched beside the day, not after it
    const student = /^\/students\/([^/]+)\/ladder$/.exec(location.pathname)?.[1];
    if (student) void queries.prefetchQuery(ladderView(student));
    try {
      await queries.ensureQueryData(dayView);
    } catch (error) {
      if (error instanceof Problem && error.status === 401)
        throw redirect({ to: "/sign-in", search: location.href === "/" ? {} : { to: location.href } });
      throw error;
    }
  },
  errorComponent: Failed,
});

const home = createRoute({
  getParentRoute: () => inside,
  path: "/",
  beforeLoad: async () => {
    const day = await queries.ensureQueryData(dayView);
    const now = day.now.slice(11, 16);
    const next = day.segments.find((s) => s.start >= now) ?? day.segments.at(-1);
    const student = next?.student ?? day.students[0]?.id;
    if (!student) throw redirect({ to: "/studio" });
    throw redirect({ to: "/students/$student/ladder", params: { student } });
  },
});

// ofDay reads which lesson an address is about, and which revision of its sheet.
function ofDay(search: Record<string, unknown>): { day?: string; revision?: number } {
  const day = typeof search.day === "string" && /^\d{4}-\d\d-\d\d$/.test(search.day) ? search.day : undefined;
  const revision = Number(search.revision);
  return { ...(day && { day }), ...(day && Number.isInteger(revision) && revision > 0 && { revision }) };
}

// ofTerm reads which term an address is about, by its first day.
function ofTerm(search: Record<string, unknown>): { from?: string } {
  const { day } = ofDay({ day: search.from });
  return day ? { from: day } : {};
}

const student = createRoute({ getParentRoute: () => inside, path: "/students/$student", component: StudentFrame });
const ladder = createRoute({
  getParentRoute: () => student,
  path: "/ladder",
  validateSearch: (search): { rung?: string } => ({ rung: typeof search.rung === "string" ? search.rung : undefined }),
  component: LadderScreen,
});
const lesson = createRoute({
  getParentRoute: () => student,
  path: "/lesson",
  validateSearch: ofDay,
  component: LessonScreen,
});
const week = createRoute({
  getParentRoute: () => student,
  path: "/week",
  validateSearch: ofDay,
  component: lazyRouteComponent(() => import("./screens/week/WeekScreen"), "WeekScreen"),
});
const record = createRoute({
  getParentRoute: () => student,
  path: "/record",
  component: lazyRouteComponent(() => import("./screens/record/RecordScreen"), "RecordScreen"),
});

const report = createRoute({
  getParentRoute: () => student,
  path: "/report",
  validateSearch: ofTerm,
  component: lazyRouteComponent(() => import("./screens/record/ReportScreen"), "ReportScreen"),
});
const placement = createRoute({
  getParentRoute: () => student,
  path: "/placement",
  component: lazyRouteComponent(() => import("./screens/ladder/PlacementScreen"), "PlacementScreen"),
});

// What is not needed beside an instrument is fetched when it is first opened.
const settings = createRoute({
  getParentRoute: () => student,
  path: "/settings",
  component: lazyRouteComponent(() => import("./screens/settings/SettingsScreen"), "SettingsScreen"),
});
const takeOver = createRoute({
  getParentRoute: () => inside,
  path: "/take-over",
  component: lazyRouteComponent(() => import("./screens/studio/TakeOver"), "TakeOver"),
});
const shelf = createRoute({
  getParentRoute: () => inside,
  path: "/shelf",
  component: lazyRouteComponent(() => import("./screens/shelf/ShelfScreen"), "ShelfScreen"),
});
const item = createRoute({
  getParentRoute: () => inside,
  path: "/items/$item",
  component: lazyRouteComponent(() => import("./screens/item/ItemScreen"), "ItemScreen"),
});
const type = createRoute({
  getParentRoute: () => inside,
  path: "/shelf/type",
  component: lazyRouteComponent(() => import("./screens/item/TypeScreen"), "TypeScreen"),
});
const workbench = createRoute({
  getParentRoute: () => inside,
  path: "/workbench",
  validateSearch: (search): { student?: string } => ({
    student: typeof search.student === "string" ? search.student : undefined,
  }),
  component: lazyRouteComponent(() => import("./screens/workbench/WorkbenchScreen"), "WorkbenchScreen"),
});
const exercises = createRoute({
  getParentRoute: () => inside,
  path: "/workbench/exercises",
  validateSearch: (search): { student?: string; exercise?: string } => ({
    student: typeof search.student === "string" ? search.student : undefined,
    exercise: typeof search.exercise === "string" ? search.exercise : undefined,
  }),
  component: lazyRouteComponent(() => import("./screens/workbench/ExercisesScreen"), "ExercisesScreen"),
});
const listen = createRoute({
  getParentRoute: () => inside,
  path: "/workbench/listen",
  validateSearch: (search): { student?: string } => ({
    student: typeof search.student === "string" ? search.student : undefined,
  }),
  component: lazyRouteComponent(() => import("./screens/workbench/ListenScreen"), "ListenScreen"),
});
const hours = createRoute({
  getParentRoute: () => inside,
  path: "/workbench/hours",
  component: lazyRouteComponent(() => import("./screens/hours/HoursScreen"), "HoursScreen"),
});
const hour = createRoute({
  getParentRoute: () => inside,
  path: "/workbench/hours/$hour",
  component: lazyRouteComponent(() => import("./screens/hours/HourScreen"), "HourScreen"),
});
const sheets = createRoute({
  getParentRoute: () => inside,
  path: "/sheets",
  validateSearch: ofDay,
  component: lazyRouteComponent(() => import("./screens/week/SheetsScreen"), "SheetsScreen"),
});
const mailbox = createRoute({
  getParentRoute: () => inside,
  path: "/mailbox",
  component: lazyRouteComponent(() => import("./screens/mailbox/MailboxScreen"), "MailboxScreen"),
});
const calendar = createRoute({
  getParentRoute: () => inside,
  path: "/calendar",
  component: lazyRouteComponent(() => import("./screens/calendar/CalendarScreen"), "CalendarScreen"),
});
const activities = createRoute({
  getParentRoute: () => inside,
  path: "/activities",
  component: lazyRouteComponent(() => import("./screens/activities/ActivitiesScreen"), "ActivitiesScreen"),
});
const instruments = createRoute({
  getParentRoute: () => inside,
  path: "/instruments",
  component: lazyRouteComponent(() => import("./screens/instruments/InstrumentsScreen"), "InstrumentsScreen"),
});
const studio = createRoute({
  getParentRoute: () => inside,
  path: "/studio",
  component: lazyRouteComponent(() => import("./screens/studio/StudioScreen"), "StudioScreen"),
});
const today = createRoute({
  getParentRoute: () => inside,
  path: "/studio/today",
  validateSearch: ofDay,
  component: lazyRouteComponent(() => import("./screens/today/TodayScreen"), "TodayScreen"),
});
const account = createRoute({
  getParentRoute: () => inside,
  path: "/studio/account",
  component: lazyRouteComponent(() => import("./screens/account/AccountScreen"), "AccountScreen"),
});
const all = createRoute({
  getParentRoute: () => inside,
  path: "/studio/students",
  component: lazyRouteComponent(() => import("./screens/today/AllScreen"), "AllScreen"),
});
const dates = createRoute({
  getParentRoute: () => inside,
  path: "/studio/dates",
  component: lazyRouteComponent(() => import("./screens/dates/DatesScreen"), "DatesScreen"),
});
const date = createRoute({
  getParentRoute: () => inside,
  path: "/studio/dates/$event",
  component: lazyRouteComponent(() => import("./screens/dates/DateScreen"), "DateScreen"),
});
const reports = createRoute({
  getParentRoute: () => inside,
  path: "/studio/reports",
  validateSearch: ofTerm,
  component: lazyRouteComponent(() => import("./screens/record/ReportsScreen"), "ReportsScreen"),
});
const term = createRoute({
  getParentRoute: () => inside,
  path: "/studio/term",
  validateSearch: (search): { from?: string; beside?: string[] } => ({
    from: ofDay({ day: search.from }).day,
    beside: Array.isArray(search.beside) ? search.beside.filter((x) => typeof x === "string") : undefined,
  }),
  component: lazyRouteComponent(() => import("./screens/today/TermScreen"), "TermScreen"),
});
const numbers = createRoute({
  getParentRoute: () => inside,
  path: "/numbers",
  component: lazyRouteComponent(() => import("./screens/studio/NumbersScreen"), "NumbersScreen"),
});

const nowhere = createRoute({
  getParentRoute: () => inside,
  path: "$",
  component: () => (
    <main className="p-10">
      <h1 className="text-head">{say("parts.thereNoSuchPage")}</h1>
      <p className="my-2">{say("parts.searchFindsStudentsPiecesPlaces")}</p>
      <a className="underline" href="/">
        {say("parts.toToday")}
      </a>
    </main>
  ),
});

export const router = createRouter({
  routeTree: root.addChildren([
    signIn,
    reset,
    confirm,
    inside.addChildren([
      home,
      student.addChildren([ladder, lesson, week, record, report, placement, settings]),
      shelf,
      takeOver,
      type,
      item,
      workbench,
      exercises,
      listen,
      hours,
      hour,
      sheets,
      mailbox,
      calendar,
      activities,
      instruments,
      studio,
      today,
      all,
      term,
      reports,
      dates,
      date,
      account,
      numbers,
      nowhere,
    ]),
  ]),
  defaultErrorComponent: Failed,
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
