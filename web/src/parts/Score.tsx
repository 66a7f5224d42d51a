import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { type Band, drawBands, drawing, type Verse } from "./engraving";
import { Shown } from "./Told";

const none: never[] = [];

// A Score is music, drawn: with lines of labels under the staves, bands over
// stretches of notes, and notes that stand out.
export function Score({
  xml,
  title,
  verses = none,
  bands = none,
  fresh = none,
}: {
  xml: string;
  title: string;
  verses?: Verse[];
  bands?: Band[];
  fresh?: string[];
}) {
  const query = useQuery(drawing(xml, verses));
  return <Shown query={query}>{(svg) => <Drawn svg={svg} title={title} bands={bands} fresh={fresh} />}</Shown>;
}

function Drawn({ svg, title, bands, fresh }: { svg: string; title: string; bands: Band[]; fresh: string[] }) {
  const draw = useCallback(
    (box: HTMLDivElement | null) => {
      if (!box) return;
      const drawn = new DOMParser().parseFromString(svg, "image/svg+xml").documentElement as unknown as SVGSVGElement;
      box.replaceChildren(drawn);
      drawBands(drawn, bands);
      for (const id of fresh) drawn.querySelector(`[id="${id}"]`)?.classList.add("fresh");
    },
    [svg, bands, fresh],
  );
  return (
    <div
      role="img"
      aria-label={`The score of ${title}`}
      className="score rounded bg-white p-3 text-black print:p-0 [&_svg]:h-auto [&_svg]:w-full"
      ref={draw}
    />
  );
}
