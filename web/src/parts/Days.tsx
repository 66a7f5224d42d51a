import { say } from "../words/say";
import { Button } from "./Button";
import { dayAfter } from "./dates";

// Days leads from a day to others.
export function Days({ date, today, to }: { date: string; today: string; to: (day: string) => void }) {
  return (
    <fieldset className="screen-only flex flex-wrap items-center gap-2">
      <legend className="sr-only">{say("parts.anotherDay")}</legend>
      <Button onClick={() => to(dayAfter(date, -1))}>{say("parts.earlier")}</Button>
      <input
        type="date"
        aria-label={say("parts.day")}
        value={date}
        onChange={(e) => e.target.value && to(e.target.value)}
        className="rounded border border-line bg-raised px-2 py-1.5"
      />
      <Button onClick={() => to(dayAfter(date, 1))}>{say("parts.later")}</Button>
      {date !== today && (
        <Button look="quiet" onClick={() => to(today)}>
          {say("parts.today")}
        </Button>
      )}
    </fieldset>
  );
}
