import { say } from "../../words/say";
import { blockNames, type LessonView } from "./view";

const edges: Record<string, string> = {
  ahead: "border-l-ahead",
  now: "border-l-now",
  upkeep: "border-l-keep",
  "": "border-l-soft",
};

type Props = { view: LessonView; minute?: number; at: number; go: (i: number) => void };

const least = 27; // px of a block with its gap, so that a finger finds it

// Minutes is the lesson as a column to scale; a block too short to be touched is
// drawn a little taller.
export function Minutes({ view, minute, at, go }: Props) {
  const { blocks, minutes } = view.plan;
  const unit = Math.max(640, minutes * 15) / minutes; // px
  const tops = [0];
  for (const b of blocks) tops.push((tops.at(-1) ?? 0) + Math.max(least, b.minutes * unit));
  const height = tops.at(-1) ?? 0;
  const y = (m: number) => {
    const i = blocks.findLastIndex((b) => b.start <= m);
    const [top, end] = [tops[i] ?? 0, tops[i + 1] ?? height];
    return top + (end - top) * Math.min(1, (m - (blocks[i]?.start ?? 0)) / (blocks[i]?.minutes ?? 1));
  };
  return (
    <nav aria-label={say("lesson.blocksLesson")} className="rounded bg-raised px-3 py-4">
      <ol className="relative" style={{ height }}>
        {blocks.map((b, i) => (
          <li
            key={b.start}
            className="absolute right-0 left-9"
            style={{ top: tops[i], height: (tops[i + 1] ?? 0) - (tops[i] ?? 0) - 3 }}
          >
            <span aria-hidden="true" className="absolute -left-9 text-small text-soft">
              {`:${String(b.start).padStart(2, "0")}`}
            </span>
            <button
              type="button"
              aria-current={i === at ? "step" : undefined}
              onClick={() => go(i)}
              className={`flex size-full items-start gap-2 overflow-hidden rounded-sm border-l-4 px-2 text-left ${b.minutes * unit < least ? "text-small leading-[1.25]" : "leading-snug"} ${edges[b.band]} ${
                i === at ? "bg-now-tint outline-[1.5px] outline-now" : "bg-faint hover:bg-line"
              }`}
            >
              <span className="min-w-0 flex-1">
                <b className="block truncate font-[620]">{b.title || blockNames[b.kind]}</b>
                {b.title && b.minutes > 2 && (
                  <span className="block truncate text-small text-soft">{blockNames[b.kind]?.toLowerCase()}</span>
                )}
              </span>
              <span className="text-small text-soft">
                {b.pinned && <span aria-hidden="true">• </span>}
                {b.minutes}
                <span className="sr-only"> {say("lesson.minutes")}</span>
              </span>
            </button>
          </li>
        ))}
        {minute !== undefined && (
          <li
            aria-hidden="true"
            className="absolute inset-x-0 h-[3px] bg-now"
            style={{ top: y(Math.min(minute, minutes)) }}
          />
        )}
      </ol>
    </nav>
  );
}
