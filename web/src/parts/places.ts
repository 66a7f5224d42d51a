import { say } from "../words/say";
// The places of the app, each once: what search finds, what a tab is titled.

export const ofStudent = [
  { at: "ladder", name: say("parts.ladder") },
  { at: "lesson", name: say("parts.lesson") },
  { at: "week", name: say("parts.practiceSheet") },
  { at: "record", name: say("parts.progress") },
  { at: "settings", name: say("parts.settings") },
] as const;

export const ofStudio = [
  { to: "/studio/today", name: say("parts.today"), says: say("parts.whoComesWhatHaveReady") },
  { to: "/studio/students", name: say("parts.allStudents"), says: say("parts.stuckReadyPlayThroughConcerts") },
  { to: "/studio/term", name: say("parts.term"), says: say("parts.whatBroughtEachStudentTwo") },
  { to: "/studio/reports", name: say("parts.reports"), says: say("parts.termsReportEachStudentWrite") },
  { to: "/studio/dates", name: say("parts.concertsExams"), says: say("parts.programmeOrderWhatRisk") },
  { to: "/studio/account", name: say("parts.account"), says: say("parts.nameMailPasswordSignIns") },
  { to: "/studio", name: say("parts.studio"), says: say("parts.studentsTakeOneKeysSign") },
  { to: "/calendar", name: say("parts.calendar"), says: say("parts.termsHolidaysLessonTimesMoved") },
  { to: "/sheets", name: say("parts.sheets"), says: say("parts.sendPrintSheetsDay") },
  { to: "/shelf/type", name: say("parts.typeTune"), says: say("parts.writeNotesLetters") },
  { to: "/shelf", name: say("parts.shelf"), says: say("parts.booksItemsBringScoresTable") },
  { to: "/workbench/exercises", name: say("parts.scalesPatterns"), says: say("parts.toolsExercisesMadeRule") },
  { to: "/take-over", name: say("parts.takeOverStudents"), says: say("parts.severalFromElsewhereHalfMinute") },
  { to: "/workbench/listen", name: say("parts.earRhythmTraining"), says: say("parts.toolsHearingPulseLevels") },
  { to: "/workbench/hours", name: say("parts.groupLessons"), says: say("parts.toolsSeveralStudentsTogether") },
  { to: "/workbench", name: say("parts.seat"), says: say("parts.toolsHowSit") },
  { to: "/activities", name: say("parts.gamesStudies"), says: say("parts.whatLessonsDrawAddOwn") },
  { to: "/instruments", name: say("parts.instruments"), says: say("parts.addInstrumentTuning") },
  { to: "/numbers", name: say("parts.whatPlansRest"), says: say("parts.skillsNumbers") },
  { to: "/mailbox", name: say("parts.mailbox"), says: say("parts.lettersWereSent") },
] as const;

// Places of a student that are reached from others.
const further: Record<string, string> = { placement: say("parts.placement"), report: say("parts.termReport") };

// titleOf names a page by its address, and by the student it is about.
export function titleOf(path: string, studio: string, student?: string): string {
  const [, area, , place] = path.split("/");
  const name =
    area === "students"
      ? [student, ofStudent.find((p) => p.at === place)?.name ?? further[place ?? ""]].filter(Boolean).join(": ")
      : area === "items"
        ? say("parts.aPiece")
        : (ofStudio.find((p) => p.to === path) ?? ofStudio.find((p) => path.startsWith(`${p.to}/`)))?.name;
  return [name, studio, say("parts.patientLadder")].filter(Boolean).join(" · ");
}
