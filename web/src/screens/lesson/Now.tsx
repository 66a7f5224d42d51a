import type { Schemas } from "../../api/client";
import { say } from "../../words/say";
import { Game } from "./Game";
import { HeadStart } from "./HeadStart";
import { Hearing } from "./Hearing";
import { Piece } from "./Piece";
import { SetUp } from "./SetUp";
import { blockNames, type LessonView } from "./view";

type Props = { view: LessonView; block?: Schemas["Block"]; minute?: number };

// What is said and done where no piece fills the block.
const cues: Record<string, string> = {
  "set-up": say("lesson.fromFloorUpFeetFlat"),
  open: say("lesson.findOutWhatStudentCan"),
  close: say("lesson.letStudentMakeSomethingUp"),
  home: say("lesson.sayTogetherWhatDoFirst"),
  ahead: say("lesson.playStudentTryBarNo"),
  opener: say("lesson.letSoundAskWhichTwo"),
  upkeep: say("lesson.onceThroughThenOneThing"),
};

const bandInk: Record<string, string> = { now: "text-now", upkeep: "text-keep", ahead: "text-ahead", "": "text-soft" };

// Now is the block in hand, legible from a metre.
export function Now({ view, block, minute }: Props) {
  if (!block) return null;
  const rung = view.rungs.find((r) => r.id === block.rung);
  const left = minute === undefined ? undefined : Math.ceil(block.start + block.minutes - minute);
  const marks = view.state === "open" && rung;
  return (
    <section aria-label={say("lesson.blockHand")}>
      <p className={`font-[620] ${bandInk[block.band]}`}>
        {block.title && `${blockNames[block.kind]} · `}
        {say("lesson.min", { minutes: block.minutes })}
        {left !== undefined && left > 0 && left <= block.minutes && say("lesson.left", { left })}
        {left !== undefined && left <= 0 && <span className="text-warn">{say("lesson.over", { n: 1 - left })}</span>}
      </p>
      <h2 className="text-huge leading-tight">{block.title || blockNames[block.kind]}</h2>
      {block.why.map((r) => (
        <p key={r.code} className="text-large text-soft">
          {r.says}
        </p>
      ))}
      {!block.activity && (
        <p className="mt-4 max-w-2xl text-[22px] leading-snug">
          {[block.kind === "upkeep" ? "" : block.cue, ...block.schools].filter(Boolean).join(" ") ||
            cues[block.kind] ||
            say("lesson.askRhythmFirstThenPlay")}
        </p>
      )}
      {block.kind === "set-up" && <SetUp view={view} />}
      {block.activity && <Game view={view} block={block} />}
      {marks && (block.kind === "opener" || block.kind === "upkeep") && (
        <Hearing view={view} block={block} rung={rung} />
      )}
      {view.state === "open" && block.skill && <HeadStart view={view} block={block} />}
      {marks && ["current", "technique", "reading", "mixture"].includes(block.kind) && (
        <Piece view={view} rung={rung} />
      )}
      {!marks && rung && rung.points.length > 0 && block.band === "now" && (
        <p className="mt-4 text-large">
          {say("lesson.goalsLeft")} <b>{rung.missing.join(", ") || say("lesson.noneReadyPlayThrough")}</b>
        </p>
      )}
    </section>
  );
}
