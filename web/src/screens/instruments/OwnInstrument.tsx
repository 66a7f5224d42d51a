import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { families, type Instrument, useInstruments } from "../../parts/instruments";
import { Trouble } from "../../parts/Told";

const hands: [Instrument["hand"], string][] = [
  ["frets", "a finger a fret, as on a guitar"],
  ["short-frets", "short frets, as on a mandolin"],
  ["patterns", "finger patterns, as on a violin"],
  ["semitones", "a semitone a finger, as on a cello"],
  ["one-two-four", "one, two and four, as on a double bass"],
];

const clefs: [Instrument["clef"], string][] = [
  ["G2", "treble"],
  ["G2-8", "treble, an octave lower"],
  ["C3", "alto"],
  ["C4", "tenor"],
  ["F4", "bass"],
];

const seats: [Instrument["seat"], string][] = [
  ["standing", "standing, or on a chair"],
  ["footstool", "seated, one foot raised"],
  ["spike", "seated, on a spike"],
  ["keys", "at keys"],
];

type Props = { instrument?: Instrument; done: () => void };

// OwnInstrument takes an instrument of the studio's own, or a tuning of another.
export function OwnInstrument({ instrument, done }: Props) {
  const { all } = useInstruments();
  const [family, setFamily] = useState<Instrument["family"]>(instrument?.family ?? "other");
  const [id, renew] = useState(instrument?.id || ulid());
  const stringed = family === "bowed" || family === "plucked";
  const save = useMutation({
    mutationFn: (body: Instrument) =>
      answer(api.PUT("/api/instruments/{instrument}", { params: { path: { instrument: id } }, body })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["instruments"] });
      renew(ulid());
      done();
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    save.mutate({
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
      fretted: false, // follows from the hand
      clef: text("clef") as Instrument["clef"],
      written: Number(text("written")),
      low: text("low"),
      high: text("high"),
      seat: text("seat") as Instrument["seat"],
      offers: [],
      own: true,
      used: false,
    });
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
      aria-label="An instrument of your own"
      className="h-fit space-y-2 rounded bg-raised p-4 font-[580]"
    >
      <h2>{instrument?.name ? `Edit the ${instrument.name}` : instrument ? "Another tuning" : "Another instrument"}</h2>
      <label className="block">
        Name
        <input name="name" required maxLength={60} defaultValue={instrument?.name} className={field} />
      </label>
      <label className="block">
        Family
        <select className={field} value={family} onChange={(e) => setFamily(e.target.value as Instrument["family"])}>
          {(["other", "keyboard", "bowed", "plucked"] as const).map((f) => (
            <option key={f} value={f}>
              {families[f]}
            </option>
          ))}
        </select>
      </label>
      <label className="block">
        Plays from the shelf of
        <select
          name="shelf"
          key={family}
          defaultValue={instrument?.shelf === id ? "" : instrument?.shelf}
          className={field}
        >
          <option value="">its own</option>
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
          "Open strings as they sound, the first first",
          "E4 B3 G3 D3 A2 D2",
          instrument?.strings.join(" "),
        )}
      {stringed &&
        choose(
          "hand",
          "The hand on the strings",
          hands,
          instrument?.hand || (family === "bowed" ? "patterns" : "frets"),
        )}
      {family === "plucked" &&
        line("drone", "A string that only sounds open (0 for none)", "0", String(instrument?.drone ?? 0))}
      {family === "keyboard" && line("keys", "Keys (0 for a full keyboard)", "61", String(instrument?.keys ?? 0))}
      <div className="grid grid-cols-2 gap-2">
        {choose("clef", "Clef", clefs, instrument?.clef || "G2")}
        {line("written", "Written above its sound by (semitones)", "0", String(instrument?.written ?? 0))}
      </div>
      {!stringed && (
        <div className="grid grid-cols-2 gap-2">
          {line("low", "Lowest note written", "C4", instrument?.low)}
          {line("high", "Highest", "C6", instrument?.high)}
        </div>
      )}
      {choose("seat", "Seat", seats, instrument?.seat || (family === "keyboard" ? "keys" : "standing"))}
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.isPending}>
          Keep it
        </Button>
        {instrument && (
          <Button look="quiet" onClick={done}>
            Leave it
          </Button>
        )}
      </div>
    </form>
  );
}
