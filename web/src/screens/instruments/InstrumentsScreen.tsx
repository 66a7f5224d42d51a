import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { families, type Instrument, useInstruments } from "../../parts/instruments";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";
import { OwnInstrument } from "./OwnInstrument";

// InstrumentsScreen lists what students may play, and takes another instrument or a
// tuning of one.
export function InstrumentsScreen() {
  const { all, name } = useInstruments();
  const [edited, edit] = useState<Instrument>();
  const drop = useMutation({
    mutationFn: (was: Instrument) =>
      answer(api.DELETE("/api/instruments/{instrument}", { params: { path: { instrument: was.id } }, body: { was } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["instruments"] }),
  });
  return (
    <main className="grid flex-1 grid-cols-[minmax(0,1fr)] content-start gap-6 px-4 py-3 lg:grid-cols-[1fr_380px]">
      <section aria-label={say("instruments.instruments")}>
        <h1 className="pb-3 text-head">{say("instruments.instruments")}</h1>
        {drop.error && <Trouble>{drop.error.message}</Trouble>}
        {Object.entries(Object.groupBy(all, (p) => p.family)).map(([family, list = []]) => (
          <section key={family} aria-label={families[family]} className="mb-3 rounded bg-raised px-4 py-2">
            <h2>{families[family]}</h2>
            <ul className="divide-y divide-faint">
              {list.map((p) => (
                <li key={p.id} className="grid items-center sm:grid-cols-[13rem_1fr_auto] gap-3 py-1.5">
                  <b className="font-[620]">{p.name}</b>
                  <span className="text-soft">{told(p, name)}</span>
                  <span className="flex gap-1">
                    {p.own ? (
                      <>
                        <Button look="quiet" onClick={() => edit(p)}>
                          {say("instruments.edit")}
                        </Button>
                        {!p.used && (
                          <Button look="quiet" disabled={drop.isPending} onClick={() => drop.mutate(p)}>
                            {say("instruments.remove")}
                          </Button>
                        )}
                      </>
                    ) : (
                      p.family !== "keyboard" && (
                        <Button
                          look="quiet"
                          onClick={() => edit({ ...p, id: "", name: "", shelf: p.shelf, own: true })}
                        >
                          {say("instruments.anotherTuning")}
                        </Button>
                      )
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        ))}
        <p className="max-w-2xl text-soft">{say("instruments.piecesFingersBooksBelongInstrument")}</p>
      </section>
      <OwnInstrument key={edited ? edited.id + edited.shelf : ""} instrument={edited} done={() => edit(undefined)} />
    </main>
  );
}

// told says in few words what is known of an instrument.
function told(p: Instrument, name: (id: string) => string): string {
  const parts = [];
  if (p.strings.length > 0) parts.push(say("instruments.strings", { list: p.strings.join(" ") }));
  if (p.family === "keyboard" && p.keys === 0) parts.push(say("instruments.fullKeyboard"));
  if (p.keys > 0) parts.push(say("instruments.keys", { keys: p.keys }));
  if (p.drone > 0) parts.push(say("instruments.stringOnlyOpen", { drone: p.drone }));
  if (p.written > 0)
    parts.push(
      say("instruments.writtenAboveItsSound", {
        value: p.written === 12 ? say("instruments.anOctave") : say("instruments.semitones", { written: p.written }),
      }),
    );
  if (p.written < 0) parts.push(say("instruments.writtenSemitonesBelowItsSound", { value: -p.written }));
  if (p.low && p.high && p.strings.length === 0) parts.push(say("instruments.range", { low: p.low, high: p.high }));
  if (p.shelf !== p.id) parts.push(say("instruments.playsFromShelf", { name: name(p.shelf) }));
  return parts.join(" · ");
}
