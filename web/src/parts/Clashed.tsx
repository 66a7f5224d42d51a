import { useState } from "react";
import type { Clash } from "../api/client";
import { say } from "../words/say";
import { Button } from "./Button";

type Props = { says: string; clash: Clash; keep: (now: object) => void; leave: () => void; busy: boolean };

// Clashed shows what this device and another made of the same fields, and asks which holds.
export function Clashed({ says, clash, keep, leave, busy }: Props) {
  const [theirs, choose] = useState<Record<string, boolean>>({});
  const now = () => {
    const out: Record<string, unknown> = { ...clash.merged };
    for (const f of clash.fields) if (theirs[f.field]) out[f.field] = f.theirs ?? undefined;
    keep(out);
  };
  return (
    <section
      role="alert"
      aria-label={say("parts.twoChanges")}
      className="space-y-2 rounded border-l-4 border-warn bg-raised p-3"
    >
      <p>{says}</p>
      {clash.fields.map((f) => (
        <fieldset key={f.field} className="border-t border-faint pt-1">
          <legend className="float-left mr-3 font-[650]">{named(f.field)}</legend>
          {[false, true].map((their) => (
            <label key={String(their)} className="clear-left flex min-h-6 items-baseline gap-2 py-0.5">
              <input
                type="radio"
                name={`clash-${f.field}`}
                checked={Boolean(theirs[f.field]) === their}
                onChange={() => choose({ ...theirs, [f.field]: their })}
              />
              <span>
                <span className="text-soft">{their ? say("parts.otherDevice") : say("parts.thisDevice")}</span>{" "}
                {shown(their ? f.theirs : f.mine)}
              </span>
            </label>
          ))}
        </fieldset>
      ))}
      <p className="flex flex-wrap gap-2">
        <Button look="main" disabled={busy} onClick={now}>
          {clash.present ? say("parts.saveChoice") : say("parts.restoreIt")}
        </Button>
        <Button look="quiet" disabled={busy} onClick={leave}>
          {clash.present ? say("parts.useOtherVersion") : say("parts.leaveRemoved")}
        </Button>
      </p>
    </section>
  );
}

const names: Record<string, string> = {
  benchHigh: say("parts.seatItsHighest"),
  benchLow: say("parts.seatItsLowest"),
  birthMonth: say("parts.monthBirth"),
  birthYear: say("parts.yearBirth"),
  book: say("parts.bookCollection"),
  entries: say("parts.whatPlayed"),
  familyName: say("parts.familyName"),
  firstName: say("parts.firstName"),
  free: say("parts.holidays"),
  keyTops: say("parts.whiteKeysAboveFloor"),
  placed: say("parts.orderProgramme"),
  restsOn: say("parts.restsOn"),
  start: say("parts.time"),
  strand: say("parts.area"),
  studio: say("parts.studiosName"),
  went: say("parts.howWent"),
  zone: say("parts.timeZone"),
};

// named is what a field is called: by the forms, or by itself.
const named = (field: string) =>
  names[field] ?? field.charAt(0).toUpperCase() + field.slice(1).replaceAll(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);

const isID = /^[0-9A-HJKMNP-TV-Z]{26}$/; // which says nothing to a person

// shown is a value of any field in a line.
function shown(value: unknown): string {
  if (value === undefined || value === null || value === "") return say("parts.nothing");
  if (typeof value === "boolean") return value ? say("parts.yes") : say("parts.no");
  if (typeof value === "string") return isID.test(value) ? "" : value;
  if (Array.isArray(value))
    return value.length === 0
      ? say("parts.nothing")
      : value.map(shown).filter(Boolean).join("; ") || say("parts.inAList", { value: value.length });
  if (typeof value !== "object") return String(value);
  return Object.values(value)
    .filter((v) => v !== "" && v !== false && v !== 0)
    .map(shown)
    .filter(Boolean)
    .join(", ");
}
