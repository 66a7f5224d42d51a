import { useMutation, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { seatTry, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { setUnits, toCM, toShown, useUnits } from "../../parts/units";
import { longDay, sentence } from "../../parts/words";
import { Figure } from "./Figure";

type View = Schemas["SeatView"];
type Where = "studio" | "home";

const bodyFields = [
  { key: "stature", name: "Stature", how: "without shoes" },
  { key: "elbow", name: "Elbow above the seat", how: "sitting, arm hanging, elbow bent" },
  { key: "lowerLeg", name: "Lower leg", how: "floor to the hollow of the knee, shoes on" },
] as const;

const benchFields = [
  { key: "keyTops", name: "White keys above the floor", keyboard: true },
  { key: "benchLow", name: "Seat at its lowest", keyboard: false },
  { key: "benchHigh", name: "Seat at its highest", keyboard: false },
  { key: "tile", name: "One firm tile", keyboard: false },
] as const;

// Seat works out how a student sits, in the studio and at home, and answers as the
// numbers change. The rules are the server's.
export function Seat({ view }: { view: View }) {
  const [where, setWhere] = useState<Where>("studio");
  const [body, setBody] = useState(view.body);
  const [places, setPlaces] = useState({ studio: view.studio.place, home: view.home.place });
  const unit = useUnits();
  const { student } = view;
  const ask = useDeferredValue<Schemas["SeatAsk"]>({
    seat: view.seat || "standing",
    body,
    place: places[where],
    bench: view.bench as Schemas["SeatAsk"]["bench"],
  });
  const tried = useQuery(seatTry(ask));
  const at = tried.data ?? view[where];
  const [small, setSmall] = useState(view.student.home.smallSize);
  const keep = useKeep(view);
  const number = (value: number, set: (cm: number) => void, label: string) => (
    <input
      key={unit}
      aria-label={label}
      inputMode="decimal"
      defaultValue={value ? toShown(value, unit) : ""}
      placeholder="—"
      onChange={(e) => {
        const n = Number(e.target.value.replace(",", "."));
        if (Number.isFinite(n)) set(toCM(n, unit));
      }}
      className="w-20 rounded border border-line bg-ground px-2 py-1.5 text-right"
    />
  );
  return (
    <div className="grid gap-4 lg:grid-cols-[340px_1fr_320px]">
      <div className="screen-only space-y-4">
        <section aria-label="Measured" className="rounded bg-raised p-4">
          <div className="flex items-center justify-between">
            <h2>{student.firstName}</h2>
            <fieldset className="flex gap-1">
              <legend className="sr-only">Units</legend>
              {(["cm", "in"] as const).map((u) => (
                <button
                  key={u}
                  type="button"
                  aria-pressed={unit === u}
                  onClick={() => setUnits(u)}
                  className={`min-h-6 rounded px-2 ${unit === u ? "bg-ink text-raised" : "bg-faint"}`}
                >
                  {u}
                </button>
              ))}
            </fieldset>
          </div>
          {view.again && <p className="mt-1 border-l-4 border-now pl-2">{sentence(view.again)}</p>}
          {view.measured && !view.again && <p className="text-soft">Measured {longDay(view.measured)}.</p>}
          {bodyFields.map((f) => (
            <div key={f.key} className="mt-2 flex items-center gap-2">
              <span className="flex-1 leading-tight">
                {f.name}
                <span className="block text-small text-soft">{f.how}</span>
              </span>
              {number(body[f.key], (cm) => setBody({ ...body, [f.key]: cm }), f.name)}
            </div>
          ))}
        </section>
        <section aria-label="Where" className="rounded bg-raised p-4">
          <fieldset className="flex gap-1">
            <legend className="sr-only">Where</legend>
            {(["studio", "home"] as const).map((w) => (
              <button
                key={w}
                type="button"
                aria-pressed={where === w}
                onClick={() => setWhere(w)}
                className={`rounded px-3 py-1.5 font-[580] ${where === w ? "bg-ink text-raised" : "bg-faint"}`}
              >
                {w === "studio" ? "In the studio" : "At home"}
              </button>
            ))}
          </fieldset>
          {benchFields
            .filter((f) => view.seat === "keys" || !f.keyboard)
            .map((f) => (
              <div key={`${where}${f.key}`} className="mt-2 flex items-center gap-2">
                <span className="flex-1">{f.name}</span>
                {number(
                  places[where][f.key],
                  (cm) => setPlaces({ ...places, [where]: { ...places[where], [f.key]: cm } }),
                  f.name,
                )}
              </div>
            ))}
          {view.seat !== "keys" && where === "home" && (
            <label className="mt-2 flex items-center gap-2">
              <input type="checkbox" checked={small} onChange={() => setSmall(!small)} />A smaller size: half, three
              quarters
            </label>
          )}
        </section>
        {keep.error && <Trouble>{keep.error.message}</Trouble>}
        <Button
          look="main"
          disabled={keep.isPending || at.wrong !== ""}
          onClick={() => keep.mutate({ body, small, ...places })}
        >
          {keep.isSuccess ? "Kept" : "Keep these numbers"}
        </Button>
      </div>
      <section aria-label="The seat from the side" className="rounded bg-raised p-4">
        {at.fit ? (
          <Figure fit={at.fit} tile={places[where].tile} />
        ) : (
          <p role="alert" className="border-l-4 border-warn pl-3 text-large">
            {at.wrong}
          </p>
        )}
        <dl className="screen-only mt-3 grid grid-cols-[6rem_1fr] gap-x-3 gap-y-1">
          {view.looks.map((l) => (
            <div key={l.wrong} className="contents">
              <dt className="font-[620]">{looks[l.wrong]}</dt>
              <dd>
                {l.seen} <span className="text-soft">{l.try}</span>
              </dd>
            </div>
          ))}
        </dl>
      </section>
      <section aria-label="Card" className="rounded bg-raised p-4">
        <h2 className="text-head">
          {student.firstName} sits like this {where === "home" ? "at home" : "here"}
        </h2>
        <ul className="mt-2 space-y-2 text-large">
          {at.fit?.says.map((r) => (
            <li key={r.code}>{sentence(r)}</li>
          ))}
          <li>Feet flat, about as wide as the shoulders. Front half of the seat. Arms hang free.</li>
          <li>At every practice: the seat first.</li>
        </ul>
        <p className="mt-3 text-soft">
          Dangling legs and seats that give way cause falls and strain. Pain, numbness or tingling: stop playing that
          day and see a licensed clinician.
        </p>
        <Button className="screen-only mt-3" onClick={() => window.print()}>
          Print the card
        </Button>
      </section>
    </div>
  );
}

const looks: Record<string, string> = {
  low: "Too low",
  high: "Too high",
  near: "Too near",
  far: "Too far",
  pedals: "At the pedals",
};

// useKeep tells what was measured as a fact, and keeps the two places.
function useKeep(view: View) {
  const student = view.student.id;
  const day = useDay().data;
  return useMutation({
    mutationFn: async (n: { body: View["body"]; small: boolean; studio: Schemas["Bench"]; home: Schemas["Bench"] }) => {
      const { stature, elbow, lowerLeg } = n.body;
      tell(student, { kind: "seat_measured", stature, elbow, lowerLeg });
      const bench = ({ keyTops, benchLow, benchHigh, tile }: Schemas["Bench"]) => ({
        keyTops,
        benchLow,
        benchHigh,
        tile,
      });
      if (day) await answer(api.PUT("/api/home", { params: { query: {} }, body: { ...day.home, ...bench(n.studio) } }));
      await answer(
        api.PUT("/api/home", {
          params: { query: { student } },
          body: { ...view.student.home, smallSize: n.small, ...bench(n.home) },
        }),
      );
    },
    onSuccess: () => queries.invalidateQueries(),
  });
}
