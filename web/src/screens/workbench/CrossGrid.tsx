import type { Schemas } from "../../api/client";
import { say } from "../../words/say";

type Props = { grid: Schemas["Grid"] };

// CrossGrid draws a cross-rhythm on its common grid: a row a hand, and under them the
// phrase, a syllable on each stroke.
export function CrossGrid({ grid }: Props) {
  const cells = Array.from({ length: grid.cells }, (_, i) => i);
  const row = (name: string, strokes: number[]) => (
    <tr>
      <th scope="row" className="pr-3 text-left font-[580] text-soft">
        {name}
      </th>
      {cells.map((c) => (
        <td key={c} className="h-9 w-9 border border-line text-center">
          {strokes.includes(c) && <span className="inline-block size-4 rounded-full bg-now" />}
          {strokes.includes(c) && <span className="sr-only">{say("workbench.plays")}</span>}
        </td>
      ))}
    </tr>
  );
  const said = new Map(grid.says.map((s) => [s.cell, s.word]));
  return (
    <div className="mb-3 overflow-x-auto rounded bg-raised px-4 py-3">
      <table aria-label={say("workbench.commonGrid")}>
        <tbody>
          {row("right", grid.right)}
          {row("left", grid.left)}
          <tr>
            <th scope="row" className="pr-3 text-left font-[580] text-soft">
              {say("workbench.say")}
            </th>
            {cells.map((c) => (
              <td key={c} className="max-w-9 overflow-visible whitespace-nowrap pt-1 text-large font-[620]">
                {said.get(c)}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="mt-1 text-soft">{say("workbench.sayEvenlyWhileTappingThen")}</p>
    </div>
  );
}
