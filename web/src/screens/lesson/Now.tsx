import type { Schemas } from "../../api/client";
import { sentence } from "../../parts/words";
import { Game } from "./Game";
import { HeadStart } from "./HeadStart";
import { Hearing } from "./Hearing";
import { Piece } from "./Piece";
import { SetUp } from "./SetUp";
import { blockNames, type LessonView } from "./view";

type Props = { view: LessonView; block?: Schemas["Block"]; minute?: number };

// What is said and done where no piece fills the block.
const cues: Record<string, string> = {
  "set-up":
    "From the floor up: feet flat or on something firm, front half of the seat, arms hanging free. One thing at a time.",
  open: "Find out what the student can do and likes. Place the first pieces on the ladder when you know.",
  close: "Let the student make something up from today's material, or choose what to play.",
  home: "Say together what to do on the first day, and why. The week sheet is written when you close the lesson.",
  ahead: "Play it to the student, or try a bar. No success is asked.",
  opener: "Let it sound. Ask which two places went well.",
  upkeep: "Once through, then one thing that could be better.",
};

const bandInk: Record<string, string> = { now: "text-now", upkeep: "text-keep", ahead: "text-ahead", "": "text-soft" };

// Now is the block in hand, legible from a metre.
export function Now({ view, block, minute }: Props) {
  if (!block) return null;
  const rung = view.rungs.find((r) => r.id === block.rung);
  const left = minute === undefined ? undefined : Math.ceil(block.start + block.minutes - minute);
  const marks = view.state === "open" && rung;
  return (
    <section aria-label="Block in hand">
      <p className={`font-[620] ${bandInk[block.band]}`}>
        {block.title && `${blockNames[block.kind]} · `}
        {`${block.minutes} min`}
        {left !== undefined && left > 0 && left <= block.minutes && `, ${left} left`}
        {left !== undefined && left <= 0 && <span className="text-warn"> · {1 - left} over</span>}
      </p>
      <h2 className="text-huge leading-tight">{block.title || blockNames[block.kind]}</h2>
      {block.why.map((r) => (
        <p key={r.code} className="text-large text-soft">
          {sentence(r)}
        </p>
      ))}
      {!block.activity && (
        <p className="mt-4 max-w-2xl text-[22px] leading-snug">
          {(block.kind === "upkeep" ? "" : block.cue) || cues[block.kind] || "Ask for the rhythm first, then play."}
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
          To work for: <b>{rung.missing.join(", ") || "the foothold"}</b>
        </p>
      )}
    </section>
  );
}
