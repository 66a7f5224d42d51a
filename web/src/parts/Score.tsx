import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useCallback } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { adopt } from "./adopt";
import { type Band, type Cut, crop, drawBands, drawing, drawVerses, engraves, type Verse } from "./engraving";
import { Shown, Trouble, Waiting } from "./Told";

const none: never[] = [];
const Staff = lazy(() => import("./Staff").then((m) => ({ default: m.Staff })));

// A Score is music, drawn: with lines of labels under the staves, bands over
// stretches of notes, and notes that stand out. Until the engraver is there, which weighs as much
// as the rest of the app many times over, a light one draws the notes alone, where they are given
// for it.
export function Score({
  xml,
  title,
  verses = none,
  bands = none,
  fresh = none,
  cut,
  light,
}: {
  xml: string;
  title: string;
  verses?: Verse[];
  bands?: Band[];
  fresh?: string[];
  cut?: Cut;
  light?: Schemas["DrawnNotes"];
}) {
  const query = useQuery(drawing(xml, verses, cut));
  if (!query.data && light?.abc && !engraves())
    return (
      <div className="score rounded bg-white p-3 text-black">
        {query.error && <Trouble again={query.refetch}>{say("parts.whatLiesOverNotesCannot")}</Trouble>}
        <Suspense fallback={<Waiting />}>
          <Staff notes={light} title={title} wide />
        </Suspense>
      </div>
    );
  return (
    <Shown query={query}>
      {(svg) => <Drawn svg={svg} title={title} verses={verses} bands={bands} fresh={fresh} cut={cut} />}
    </Shown>
  );
}

type DrawnProps = { svg: string; title: string; verses: Verse[]; bands: Band[]; fresh: string[]; cut?: Cut };

// pageWidth is how wide a line of a sheet is, in pixels: A4 between its margins.
const pageWidth = 708;

function Drawn({ svg, title, verses, bands, fresh, cut }: DrawnProps) {
  const draw = useCallback(
    (box: HTMLDivElement | null) => {
      if (!box) return;
      const own: (() => void)[] = [];
      const bare = svg.replace(/<style[^>]*>([\s\S]*?)<\/style>/g, (_, css) => {
        own.push(adopt(css));
        return "";
      });
      const drawn = new DOMParser().parseFromString(bare, "image/svg+xml").documentElement as unknown as SVGSVGElement;
      box.replaceChildren(drawn);
      drawVerses(drawn, verses);
      drawBands(drawn, bands, cut !== undefined);
      if (cut) crop(drawn, pageWidth);
      for (const id of fresh) drawn.querySelector(`[id="${id}"]`)?.classList.add("fresh");
      return () => {
        for (const release of own) release();
      };
    },
    [svg, verses, bands, fresh, cut],
  );
  return (
    <div
      role="img"
      aria-label={say("parts.theScoreOf", { title })}
      className={`score rounded bg-white text-black ${cut ? "p-1 [&_svg]:max-w-full" : "p-3 print:p-0 [&_svg]:h-auto [&_svg]:w-full"}`}
      ref={draw}
    />
  );
}
