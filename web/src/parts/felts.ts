import { say } from "../words/say";

// felts are the words for how practice felt.
export const felts: Record<string, string> = {
  fun: say("parts.feltFun"),
  easy: say("parts.feltEasy"),
  fine: say("parts.feltFine"),
  hard: say("parts.feltHard"),
  dull: say("parts.feltDull"),
};

// counted lists how often practice felt each way, the most frequent first.
export const counted = (told: Record<string, number>) =>
  Object.entries(told)
    .sort(([, a], [, b]) => b - a)
    .map(([felt, n]) => `${felts[felt] ?? felt} ${n}×`)
    .join(", ");
