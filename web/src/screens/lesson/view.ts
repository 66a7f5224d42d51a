import type { Schemas } from "../../api/client";

export type LessonView = Schemas["LessonView"];

// How kinds of blocks are headed.
export const blockNames: Record<string, string> = {
  "set-up": "Sitting down",
  opener: "Opener",
  technique: "Technique",
  current: "Current piece",
  reading: "Reading",
  upkeep: "Upkeep",
  ahead: "Ahead",
  mixture: "Small thing",
  activity: "Game",
  probe: "First meeting",
  open: "Getting to know each other",
  close: "To close",
  home: "At home",
};
