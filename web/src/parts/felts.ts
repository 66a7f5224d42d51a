import { say } from "../words/say";

// felts are the words for how practice felt.
export const felts: Record<string, string> = {
  fun: say("parts.feltFun"),
  easy: say("parts.feltEasy"),
  fine: say("parts.feltFine"),
  hard: say("parts.feltHard"),
  dull: say("parts.feltDull"),
};
