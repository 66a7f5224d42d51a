import { type ReactNode, useCallback, useInsertionEffect } from "react";
import { adopt } from "../../parts/adopt";

const edge = 11; // mm on each side
const papers = { A4: [210, 297], Letter: [215.9, 279.4] } as const; // mm

export type Paper = keyof typeof papers;

// The printed area in CSS pixels, 96 to the inch.
const printed = (paper: Paper) => papers[paper].map((mm) => ((mm - 2 * edge) * 96) / 25.4) as [number, number];

// Papers asks for the paper, and prints on it.
export function Papers({ paper, choose }: { paper: Paper; choose: (p: Paper) => void }) {
  useInsertionEffect(() => adopt(`@page { size: ${paper}; margin: ${edge}mm }`), [paper]);
  return (
    <>
      {(["A4", "Letter"] as const).map((p) => (
        <label key={p} className="mr-4 inline-flex items-center gap-1.5">
          <input type="radio" name="paper" checked={paper === p} onChange={() => choose(p)} /> {p}
        </label>
      ))}
    </>
  );
}

const largePrint = 1.6;
const smallest = 0.4;
const margin = 4; // pixels of a rounding here and there

type Props = { paper: Paper; large: boolean; children: ReactNode };

// OnePage makes what it holds print on exactly one page: a copy is measured at the
// paper's width, and set smaller until it is not too long. Large print begins larger.
export function OnePage({ paper, large, children }: Props) {
  const fit = useCallback(
    (box: HTMLDivElement | null) => {
      if (!box) return;
      const [width, height] = printed(paper);
      const measure = () => {
        const fits = (zoom: number) => tall(box, width / zoom) * zoom <= height - margin;
        let [zoom, tooLarge] = [smallest, large ? largePrint : 1];
        if (fits(tooLarge)) zoom = tooLarge;
        while (tooLarge - zoom > 0.01) {
          const middle = (zoom + tooLarge) / 2;
          if (fits(middle)) zoom = middle;
          else tooLarge = middle;
        }
        box.style.setProperty("--page-zoom", zoom.toFixed(3));
      };
      box.style.removeProperty("--page-zoom"); // of the paper before
      const seen = new ResizeObserver(measure); // scores arrive late
      seen.observe(box);
      window.addEventListener("beforeprint", measure);
      return () => {
        seen.disconnect();
        window.removeEventListener("beforeprint", measure);
      };
    },
    [paper, large],
  );
  return (
    <div ref={fit} data-testid="page" className="one-page min-w-0 flex-1">
      {children}
    </div>
  );
}

// tall is how long what a box holds is on paper of a width.
function tall(box: HTMLElement, width: number): number {
  const copy = document.createElement("div");
  copy.dataset.paper = "";
  copy.setAttribute("aria-hidden", "true");
  copy.style.width = `${width}px`;
  for (const child of box.children) copy.append(child.cloneNode(true));
  document.body.append(copy);
  const height = copy.getBoundingClientRect().height;
  copy.remove();
  return height;
}
