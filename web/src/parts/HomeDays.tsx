import { tell } from "../api/outbox";
import { say } from "../words/say";
import { DayPicker } from "./DayPicker";
import { weekOrder } from "./dates";

type Props = { student: string; days: number[]; minutes: number };

// HomeDays sets on which days a family practises, and for how long. Teacher and
// family have it; what was told last holds.
export function HomeDays({ student, days, minutes }: Props) {
  const on = days.length === 0 ? weekOrder : days;
  const set = (list: number[], m: number) => tell(student, { kind: "days_set", weekdays: list, minutes: m });
  return (
    <div className="space-y-3">
      <fieldset>
        <legend className="mb-1 font-[620]">{say("parts.daysPractice")}</legend>
        <DayPicker days={on} set={(list) => list.length > 0 && set(list, minutes)} />
      </fieldset>
      <label className="flex items-center gap-3">
        <span className="flex-1 font-[620]">{say("parts.minutesDay")}</span>
        <select
          className="min-h-11 rounded border border-line bg-raised px-3"
          value={minutes}
          onChange={(e) => set(on, Number(e.target.value))}
        >
          <option value={0}>{say("parts.theUsual")}</option>
          {[5, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60].map((m) => (
            <option key={m}>{m}</option>
          ))}
        </select>
      </label>
    </div>
  );
}
