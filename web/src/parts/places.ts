// The places of the app, each once: what search finds, what a tab is titled.

export const ofStudent = [
  { at: "ladder", name: "Ladder" },
  { at: "lesson", name: "Lesson" },
  { at: "week", name: "Week sheet" },
  { at: "record", name: "Record" },
  { at: "settings", name: "Settings" },
] as const;

export const ofStudio = [
  { to: "/studio/today", name: "Today", says: "who comes, what to have ready, print all plans" },
  { to: "/studio/students", name: "All students", says: "stuck, silent, ready to try, dates coming, to order" },
  { to: "/studio/term", name: "Term", says: "what it brought each student, two side by side" },
  { to: "/studio/reports", name: "Reports", says: "a term's report of each student: write, keep, send, print" },
  { to: "/studio/dates", name: "Dates", says: "concerts and exams: programme, order, what is at risk" },
  { to: "/studio/account", name: "Account", says: "name, mail, password, sign-ins" },
  { to: "/studio", name: "Studio", says: "students, take one on, keys, sign out" },
  { to: "/calendar", name: "Calendar", says: "terms, free weeks, lesson times, moved lessons" },
  { to: "/sheets", name: "Sheets", says: "send or print the sheets of a day" },
  { to: "/shelf/type", name: "Type a tune", says: "write notes in letters" },
  { to: "/shelf", name: "Shelf", says: "books and items, bring in scores, a table" },
  { to: "/workbench/exercises", name: "Scales and patterns", says: "workbench: exercises made by rule" },
  { to: "/take-over", name: "Take over students", says: "several from elsewhere, half a minute each" },
  { to: "/workbench/listen", name: "Listen and answer", says: "workbench: hearing and pulse, in levels" },
  { to: "/workbench/hours", name: "Shared hours", says: "workbench: several students together" },
  { to: "/workbench", name: "Seat", says: "workbench: how to sit" },
  { to: "/activities", name: "Games and studies", says: "what lessons draw on, add your own" },
  { to: "/instruments", name: "Instruments", says: "add an instrument or a tuning" },
  { to: "/numbers", name: "What plans rest on", says: "skills and numbers" },
  { to: "/mailbox", name: "Mailbox", says: "letters that were sent" },
] as const;

// Places of a student that are reached from others.
const further: Record<string, string> = { placement: "Placement", report: "Term report" };

// titleOf names a page by its address, and by the student it is about.
export function titleOf(path: string, studio: string, student?: string): string {
  const [, area, , place] = path.split("/");
  const name =
    area === "students"
      ? [student, ofStudent.find((p) => p.at === place)?.name ?? further[place ?? ""]].filter(Boolean).join(": ")
      : area === "items"
        ? "A piece"
        : (ofStudio.find((p) => p.to === path) ?? ofStudio.find((p) => path.startsWith(`${p.to}/`)))?.name;
  return [name, studio, "Patient Ladder"].filter(Boolean).join(" · ");
}
