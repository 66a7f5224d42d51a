import { useMutation, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { tell } from "../../api/outbox";
import { seatTry, useDay } from "../../api/views";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { setUnits, toCM, toShown, useUnits } from "../../parts/units";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";
import { Figure } from "./Figure";

type View = Schemas["SeatView"];
type Where = "studio" | "home";

const bodyFields = [
  { key: "stature", name: say("workbench.stature"), how: say("workbench.withoutShoes") },
  { key: "elbow", name: say("workbench.elbowAboveSeat"), how: say("workbench.sittingArmHangingElbowBent") },
  { key: "lowerLeg", name: say("workbench.lowerLeg"), how: say("workbench.floorHollowKneeShoes") },
] as const;

const benchFields = [
  { key: "keyTops", name: say("workbench.whiteKeysAboveFloor"), keyboard: true },
  { key: "benchLow", name: say("workbench.seatItsLowest"), keyboard: false },
  { key: "benchHigh", name: say("workbench.seatItsHighest"), keyboard: false },
  { key: "tile", name: say("workbench.oneFirmTile"), keyboard: false },
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
  const keep = useKeepSeat(view);
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
        <section aria-label={say("workbench.measured")} className="rounded bg-raised p-4">
          <div className="flex items-center justify-between">
            <h2>{student.firstName}</h2>
            <fieldset className="flex gap-1">
              <legend className="sr-only">{say("workbench.units")}</legend>
              {(["cm", "in"] as const).map((u) => (
                <button
                  key={u}
                  type="button"
                  aria-pressed={unit === u}
                  onClick={() => {
                    setUnits(u);
                    void queries.invalidateQueries(); // what the server says is said in the new unit
                  }}
                  className={`min-h-6 rounded px-2 ${unit === u ? "bg-ink text-raised" : "bg-faint"}`}
                >
                  {u === "cm" ? "cm" : say("workbench.inchesShort")}
                </button>
              ))}
            </fieldset>
          </div>
          {view.again && <p className="mt-1 border-l-4 border-now pl-2">{view.again.says}</p>}
          {view.measured && !view.again && (
            <p className="text-soft">{say("workbench.measured2", { day: longDay(view.measured) })}</p>
          )}
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
        <section aria-label={say("workbench.where")} className="rounded bg-raised p-4">
          <fieldset className="flex gap-1">
            <legend className="sr-only">{say("workbench.where")}</legend>
            {(["studio", "home"] as const).map((w) => (
              <button
                key={w}
                type="button"
                aria-pressed={where === w}
                onClick={() => setWhere(w)}
                className={`rounded px-3 py-1.5 font-[580] ${where === w ? "bg-ink text-raised" : "bg-faint"}`}
              >
                {w === "studio" ? say("workbench.inTheStudio") : say("workbench.atHome")}
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
              <input type="checkbox" checked={small} onChange={() => setSmall(!small)} />
              {say("workbench.smallerSizeHalfThreeQuarters")}
            </label>
          )}
        </section>
        {keep.error && <Trouble>{keep.error.message}</Trouble>}
        <Button
          look="main"
          disabled={keep.isPending || at.wrong !== ""}
          onClick={() => keep.mutate({ body, small, ...places })}
        >
          {keep.isSuccess ? say("workbench.saved") : say("workbench.saveTheseNumbers")}
        </Button>
      </div>
      <section aria-label={say("workbench.seatFromSide")} className="rounded bg-raised p-4">
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
      <section aria-label={say("workbench.card")} className="rounded bg-raised p-4">
        <h2 className="text-head">
          {where === "home"
            ? say("workbench.sitsAtHome", { name: student.firstName })
            : say("workbench.sitsHere", { name: student.firstName })}
        </h2>
        <ul className="mt-2 space-y-2 text-large">
          {at.fit?.says.map((r) => (
            <li key={r.code}>{r.says}</li>
          ))}
          <li>{say("workbench.feetFlatAboutWideShoulders")}</li>
          <li>{say("workbench.everyPracticeSeatFirst")}</li>
        </ul>
        <p className="mt-3 text-soft">{say("workbench.danglingLegsSeatsGiveWay")}</p>
        <Button className="screen-only mt-3" onClick={() => window.print()}>
          {say("workbench.printCard")}
        </Button>
      </section>
    </div>
  );
}

const looks: Record<string, string> = {
  low: say("workbench.tooLow"),
  high: say("workbench.tooHigh"),
  near: say("workbench.tooNear"),
  far: say("workbench.tooFar"),
  pedals: say("workbench.atThePedals"),
};

// useKeepSeat tells what was measured as a fact, and keeps the two places.
function useKeepSeat(view: View) {
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
      if (day)
        await answer(
          api.PUT("/api/home", {
            params: { query: {} },
            body: { was: day.home, now: { ...day.home, ...bench(n.studio) } },
          }),
        );
      await answer(
        api.PUT("/api/home", {
          params: { query: { student } },
          body: { was: view.student.home, now: { ...view.student.home, smallSize: n.small, ...bench(n.home) } },
        }),
      );
    },
    onSuccess: () => queries.invalidateQueries(),
  });
}
