import { answer, api, type Schemas } from "../../api/client";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Item = Schemas["Item"];

// Asks lists what the score asks for, and lets the teacher settle where the
// item's tags tell otherwise.
export function Asks({ item, read }: { item: Item; read: Schemas["ReadingView"] }) {
  const save = useKeep<Item>("asks", (body) =>
    answer(api.PUT("/api/items/{item}", { params: { path: { item: item.id } }, body })),
  );
  const change = (to: Partial<Item>) => save.keep({ ...item, ...to }, item);
  const off = (skill: string) => ({
    brings: item.brings.filter((s) => s !== skill),
    needs: item.needs.filter((s) => s !== skill),
    revisits: item.revisits.filter((s) => s !== skill),
  });
  const disputed = new Set(read.disagree.map((d) => d.skill));
  const settle = (skill: string) => change({ settled: [...(item.settled ?? []), skill] });
  const touch = "font-[620] underline underline-offset-4 disabled:opacity-45";
  return (
    <section aria-label={say("item.whatAsks")} className="rounded bg-raised px-4 py-3 print:hidden">
      {read.disagree.length > 0 && (
        <ul className="mb-2 space-y-1.5 border-l-4 border-now pl-3">
          {read.disagree.map((d) => (
            <li key={d.skill}>
              {d.asked
                ? say("item.notesAskNoTag", { name: d.name })
                : say("item.tagNotInNotes", { tagged: d.tagged, name: d.name })}{" "}
              <span className="whitespace-nowrap">
                <button
                  type="button"
                  className={touch}
                  disabled={save.busy}
                  onClick={() => change(d.asked ? { needs: [...item.needs, d.skill] } : off(d.skill))}
                >
                  {d.asked ? say("item.addIt") : say("item.takeOff")}
                </button>
                {" · "}
                <button type="button" className={touch} disabled={save.busy} onClick={() => settle(d.skill)}>
                  {say("item.leaveAsItIs")}
                </button>
              </span>
            </li>
          ))}
        </ul>
      )}
      {save.asked}
      <details>
        <summary className="cursor-pointer font-[650]">{say("item.whatAsks2", { asks: read.asks.length })}</summary>
        <ul className="mt-1 divide-y divide-faint">
          {read.asks.map((a) => (
            <li key={a.skill} className="flex items-baseline justify-between gap-3 py-1">
              <span>
                {a.name}
                <span className="block text-small text-soft">
                  {a.why}, {bars(a.bars)}
                </span>
              </span>
              <select
                aria-label={say("item.howItemHas", { name: a.name })}
                className="shrink-0 rounded border border-line bg-ground px-1.5 py-0.5"
                value={a.tagged}
                disabled={save.busy}
                onChange={(e) => {
                  const to = e.target.value as "" | "brings" | "needs" | "revisits";
                  const lists = off(a.skill);
                  if (to) lists[to] = [...lists[to], a.skill];
                  const settled = item.settled ?? [];
                  // what is left untagged against the notes is a correction to keep
                  change({ ...lists, settled: to || disputed.has(a.skill) ? settled : [...settled, a.skill] });
                }}
              >
                <option value="">{say("item.goesWithoutSaying")}</option>
                <option value="brings">{say("item.newHere")}</option>
                <option value="needs">{say("item.needed")}</option>
                <option value="revisits">{say("item.askedAgain")}</option>
              </select>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}

const bars = (list: number[]) =>
  list.length > 4
    ? say("item.barsFromBar", { list: list.length, list2: list[0] })
    : say("item.bar2", { value: list.length > 1 ? "s" : "", list: list.join(", ") });
