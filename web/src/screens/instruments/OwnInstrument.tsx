import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { answer, api } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { families, type Instrument, useInstruments } from "../../parts/instruments";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

const hands: [Instrument["hand"], string][] = [
  ["frets", say("instruments.fingerFretGuitar")],
  ["short-frets", say("instruments.shortFretsMandolin")],
  ["patterns", say("instruments.fingerPatternsViolin")],
  ["semitones", say("instruments.semitoneFingerCello")],
  ["one-two-four", say("instruments.oneTwoFourDoubleBass")],
];

const clefs: [Instrument["clef"], string][] = [
  ["G2", say("instruments.treble")],
  ["G2-8", say("instruments.trebleOctaveLower")],
  ["C3", say("instruments.alto")],
  ["C4", say("instruments.tenor")],
  ["F4", say("instruments.bass")],
];

const seats: [Instrument["seat"], string][] = [
  ["standing", say("instruments.standingChair")],
  ["footstool", say("instruments.seatedOneFootRaised")],
  ["spike", say("instruments.seatedSpike")],
  ["keys", say("instruments.atKeys")],
];

type Props = { instrument?: Instrument; done: () => void };

// OwnInstrument takes an instrument of the studio's own, or a tuning of another.
export function OwnInstrument({ instrument, done }: Props) {
  const { all } = useInstruments();
  const [family, setFamily] = useState<Instrument["family"]>(instrument?.family ?? "other");
  const [id, renew] = useState(instrument?.id || ulid());
  const stringed = family === "bowed" || family === "plucked";
  const [was] = useState(instrument?.id ? instrument : undefined);
  const save = useKeep<Instrument>(
    "instrument",
    (body) => answer(api.PUT("/api/instruments/{instrument}", { params: { path: { instrument: id } }, body })),
    () => {
      renew(ulid());
      done();
    },
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    const now: Instrument = {
      ...was,
      id,
      name: text("name"),
      family,
      shelf: text("shelf"),
      keys: Number(text("keys")),
      strings: text("strings")
        .split(/[\s,]+/)
        .filter((s) => s !== ""),
      drone: Number(text("drone")),
      hand: text("hand") as Instrument["hand"],
      fretted: was?.fretted ?? false, // follows from the hand
      clef: text("clef") as Instrument["clef"],
      written: Number(text("written")),
      low: text("low"),
      high: text("high"),
      seat: text("seat") as Instrument["seat"],
      own: true,
      used: was?.used ?? false,
    };
    save.keep(now, was);
  };
  const choose = (name: string, label: string, choices: [string, string][], value?: string) => (
    <label className="block">
      {label}
      <select name={name} defaultValue={value} className={field}>
        {choices.map(([key, says]) => (
          <option key={key} value={key}>
            {says}
          </option>
        ))}
      </select>
    </label>
  );
  const line = (name: string, label: string, hint: string, value = "") => (
    <label className="block">
      {label}
      <input name={name} defaultValue={value} placeholder={hint} className={`${field} placeholder:text-soft`} />
    </label>
  );
  return (
    <form
      key={id}
      onSubmit={submit}
      aria-label={say("instruments.instrumentOwn")}
      className="h-fit space-y-2 rounded bg-raised p-4 font-[580]"
    >
      <h2>
        {instrument?.name
          ? say("instruments.editThe", { name: instrument.name })
          : instrument
            ? say("instruments.anotherTuning")
            : say("instruments.anotherInstrument")}
      </h2>
      <label className="block">
        {say("instruments.name")}
        <input name="name" required maxLength={60} defaultValue={instrument?.name} className={field} />
      </label>
      <label className="block">
        {say("instruments.family")}
        <select className={field} value={family} onChange={(e) => setFamily(e.target.value as Instrument["family"])}>
          {(["other", "keyboard", "bowed", "plucked"] as const).map((f) => (
            <option key={f} value={f}>
              {families[f]}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        {say("instruments.playsFromShelf2")}
        <select
          name="shelf"
          key={family}
          defaultValue={instrument?.shelf === id ? "" : instrument?.shelf}
          className={field}
        >
          <option value="">{say("instruments.itsOwn")}</option>
          {all
            .filter((p) => p.family === family && p.shelf === p.id && p.id !== id)
            .map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
        </select>
      </label>
      {stringed &&
        line(
          "strings",
          say("instruments.openStringsTheySoundFirst"),
          "E4 B3 G3 D3 A2 D2",
          instrument?.strings.join(" "),
        )}
      {stringed &&
        choose(
          "hand",
          say("instruments.handStrings"),
          hands,
          instrument?.hand || (family === "bowed" ? "patterns" : "frets"),
        )}
      {family === "plucked" &&
        line("drone", say("instruments.stringOnlySoundsOpen0"), "0", String(instrument?.drone ?? 0))}
      {family === "keyboard" && line("keys", say("instruments.keys0FullKeyboard"), "61", String(instrument?.keys ?? 0))}
      <div className="grid grid-cols-2 gap-2">
        {choose("clef", say("instruments.clef"), clefs, instrument?.clef || "G2")}
        {line("written", say("instruments.writtenAboveItsSoundSemitones"), "0", String(instrument?.written ?? 0))}
      </div>
      {!stringed && (
        <div className="grid grid-cols-2 gap-2">
          {line("low", say("instruments.lowestNoteWritten"), "C4", instrument?.low)}
          {line("high", say("instruments.highest"), "C6", instrument?.high)}
        </div>
      )}
      {choose(
        "seat",
        say("instruments.seat"),
        seats,
        instrument?.seat || (family === "keyboard" ? "keys" : "standing"),
      )}
      {save.asked}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.busy}>
          {say("instruments.save")}
        </Button>
        {instrument && (
          <Button look="quiet" onClick={done}>
            {say("instruments.leaveIt")}
          </Button>
        )}
      </div>
    </form>
  );
}
