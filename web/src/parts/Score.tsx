import { queryOptions, useQuery } from "@tanstack/react-query";
import { fetchScore } from "../api/views";
import { Shown } from "./Told";

// The engraver is large, so it is loaded when a score is first shown.
let loading: Promise<(xml: string) => string> | undefined;

function engraver() {
  loading ??= (async () => {
    const [{ default: createModule }, { VerovioToolkit }] = await Promise.all([
      import("verovio/wasm"),
      import("verovio/esm"),
    ]);
    const kit = new VerovioToolkit(await createModule());
    return (xml: string) => {
      kit.setOptions({
        pageWidth: 1500,
        pageHeight: 60000,
        adjustPageHeight: true,
        scale: 42,
        svgViewBox: true,
        smuflTextFont: "embedded",
        header: "none",
        footer: "none",
        pageMarginTop: 20,
        pageMarginBottom: 20,
        pageMarginLeft: 20,
        pageMarginRight: 20,
      });
      if (!kit.loadData(xml)) throw new Error("This score could not be drawn.");
      return kit.renderToSVG(1);
    };
  })();
  return loading;
}

const drawing = (item: string) =>
  queryOptions({
    queryKey: ["drawing", item],
    queryFn: async () => (await engraver())(await fetchScore(item)),
    staleTime: Number.POSITIVE_INFINITY, // a score on the shelf does not change
  });

// A Score is an item's music, drawn.
export function Score({ item, title }: { item: string; title: string }) {
  const query = useQuery(drawing(item));
  return (
    <Shown query={query}>
      {(svg) => (
        <div
          role="img"
          aria-label={`The score of ${title}`}
          className="rounded bg-white p-3 text-black [&_svg]:h-auto [&_svg]:w-full"
          ref={(el) => {
            const drawn = new DOMParser().parseFromString(svg, "image/svg+xml").documentElement;
            el?.replaceChildren(drawn);
          }}
        />
      )}
    </Shown>
  );
}
