import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import type { Schemas } from "../../api/client";
import { readingView, scoreText } from "../../api/views";
import type { Band } from "../../parts/engraving";
import { Score } from "../../parts/Score";
import { say } from "../../words/say";

type Piece = Schemas["Bracketed"];

// most is how many levels of brackets stand over the notes; what is joined higher up
// is most of the piece anyway.
const most = 3;

// Bracketed shows the bars that a week builds, its chunks as joined brackets over
// the notes: each with its number and where the hand starts.
export function Bracketed({ piece }: { piece: Piece }) {
  const xml = useQuery(scoreText(piece.item));
  const reading = useQuery(readingView(piece.item, ""));
  const bands = useMemo(() => (reading.data ? bandsOf(piece, reading.data) : []), [piece, reading.data]);
  const cut = useMemo(
    () => ({
      bars: [piece.from, piece.to] as [number, number],
      width: 2300,
      room: 7 * Math.max(0, ...bands.map((b) => b.level)),
    }),
    [piece, bands],
  );
  if (!xml.data || !reading.data) return null;
  return (
    <figure className="break-inside-avoid">
      <figcaption className="text-small paper:text-[12px]">
        <b className="font-[650]">{piece.title}</b>,{" "}
        {piece.from === piece.to
          ? say("week.bar", { from: piece.from })
          : say("week.barsTo", { from: piece.from, to: piece.to })}
      </figcaption>
      <Score xml={xml.data} title={piece.title} bands={bands} cut={cut} />
    </figure>
  );
}

// bandsOf turns chunks into brackets over the notes that they hold: a chunk of both
// hands stands over the upper staff.
function bandsOf(piece: Piece, read: Schemas["ReadingView"]): Band[] {
  const onset = new Map(read.sounds.map((s) => [s.id, s.onset]));
  return piece.chunks
    .filter((c) => c.level < most)
    .map((c) => {
      const staff = Math.max(0, read.hands.indexOf(c.hand));
      const [from, to] = [onset.get(c.from) ?? 0, onset.get(c.to) ?? 0];
      return {
        notes: read.sounds.filter((s) => s.staff === staff && s.onset >= from && s.onset <= to).map((s) => s.id),
        text: [c.number, c.level === 0 && c.says.replace(say("parts.flat"), "♭").replace(say("parts.sharp"), "♯")]
          .filter(Boolean)
          .join(" · "),
        says: say("week.chunk", { number: c.number, value: c.says ? `, ${c.says}` : "" }),
        hue: c.number % 2,
        level: c.level,
        kind: "chunks",
      };
    });
}
