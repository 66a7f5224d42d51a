import type { Schemas } from "../../api/client";
import { say } from "../../words/say";

export type LessonView = Schemas["LessonView"];

// How kinds of blocks are headed.
export const blockNames: Record<string, string> = {
  "set-up": say("lesson.posture"),
  opener: say("lesson.openingPiece"),
  technique: say("lesson.technique"),
  current: say("lesson.currentPiece"),
  reading: say("lesson.reading"),
  upkeep: say("lesson.review"),
  ahead: say("lesson.preparation"),
  mixture: say("lesson.smallActivity"),
  activity: say("lesson.game"),
  probe: say("lesson.firstMeeting"),
  open: say("lesson.gettingKnowEachOther"),
  close: say("lesson.finish"),
  home: say("lesson.practiceWeek"),
};
