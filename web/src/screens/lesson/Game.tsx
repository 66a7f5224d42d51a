import type { Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { Button, Key } from "../../parts/Button";
import { useKeys } from "../../parts/keys";
import { say } from "../../words/say";
import { told } from "./told";
import type { LessonView } from "./view";

type Props = { view: LessonView; block: Schemas["Block"] };

const cautions: Record<string, string> = {
  "small-parts": say("lesson.smallParts"),
  touch: say("lesson.askBeforeTouch"),
  falls: say("lesson.clearTheFloor"),
  loud: say("lesson.loudSmallRoomKeepShort"),
  together: say("lesson.needsBothOneRoom"),
};

const outcomes = [
  { key: "pass", name: say("lesson.exitTestPassed") },
  { key: "nearly", name: say("lesson.nearly") },
  { key: "not-yet", name: say("lesson.notYet") },
] as const;

// Game is an activity: its levels with one in hand, its exit test, what to look
// for, and how it went in one touch.
export function Game({ view, block }: Props) {
  const game = block.activity;
  const student = view.student.id;
  const mark = (outcome: (typeof outcomes)[number]["key"]) =>
    game &&
    tell(student, {
      kind: "activity_done",
      activity: game.id,
      aim: block.aim || undefined,
      level: block.level ?? 1,
      outcome,
    });
  const ask = () => game && tell(student, { kind: "activity_asked", activity: game.id });
  const outcome = told(view, "activity_done").findLast((b) => b.activity === game?.id)?.outcome;
  const asked = told(view, "activity_asked").some((b) => b.activity === game?.id);
  const open = view.state === "open";
  useKeys(
    open
      ? {
          ...Object.fromEntries(outcomes.map((o, i) => [String(i + 1), () => mark(o.key)])),
          a: asked ? undefined : ask,
        }
      : {},
  );
  if (!game) return null;
  return (
    <div className="mt-4 space-y-3">
      <ol className="space-y-1" aria-label={say("lesson.levels")}>
        {game.levels.map((l, i) => (
          <li key={l} className={`flex gap-3 ${i + 1 === block.level ? "text-large" : "text-soft"}`}>
            <Key>{i + 1 === block.level ? say("lesson.level", { n: i + 1 }) : i + 1}</Key>
            <span className={i + 1 === block.level ? "font-[580]" : ""}>{l}</span>
          </li>
        ))}
      </ol>
      <dl className="grid grid-cols-[7rem_1fr] gap-x-3 gap-y-1">
        <dt className="text-soft">{say("lesson.lookFor")}</dt>
        <dd>{game.look}</dd>
        <dt className="text-soft">{say("lesson.exitTest")}</dt>
        <dd>{game.exit}</dd>
        {game.easier && (
          <>
            <dt className="text-soft">{say("lesson.easier")}</dt>
            <dd>{game.easier}</dd>
          </>
        )}
        {game.harder && (
          <>
            <dt className="text-soft">{say("lesson.harder")}</dt>
            <dd>{game.harder}</dd>
          </>
        )}
        {game.things && (
          <>
            <dt className="text-soft">{say("lesson.atHand")}</dt>
            <dd>{game.things}</dd>
          </>
        )}
      </dl>
      {game.cautions.map((c) => (
        <p key={c} className="border-l-4 border-warn pl-3">
          {cautions[c]}
        </p>
      ))}
      {open && block.kind !== "close" && (
        <fieldset className="flex flex-wrap gap-2.5">
          <legend className="sr-only">{say("lesson.howDidGo")}</legend>
          {outcomes.map((o, i) => (
            <button
              key={o.key}
              type="button"
              aria-pressed={outcome === o.key}
              onClick={() => mark(o.key)}
              className={`flex min-h-14 items-center gap-3 rounded border-[1.5px] px-4 text-large font-[620] ${
                outcome === o.key ? "border-keep bg-keep-tint" : "border-line hover:bg-faint"
              }`}
            >
              <Key>{i + 1}</Key> {o.name}
            </button>
          ))}
          <Button hint="A" className="ml-auto" onClick={ask} disabled={asked}>
            {asked ? say("lesson.askedAgain") : say("lesson.asksAgain")}
          </Button>
        </fieldset>
      )}
    </div>
  );
}
