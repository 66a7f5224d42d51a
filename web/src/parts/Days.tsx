import { Button } from "./Button";
import { dayAfter } from "./dates";

// Days leads from a day to others.
export function Days({ date, today, to }: { date: string; today: string; to: (day: string) => void }) {
  return (
    <fieldset className="screen-only flex items-center gap-2">
      <legend className="sr-only">Another day</legend>
      <Button onClick={() => to(dayAfter(date, -1))}>Earlier</Button>
      <input
        type="date"
        aria-label="Day"
        value={date}
        onChange={(e) => e.target.value && to(e.target.value)}
        className="rounded border border-line bg-raised px-2 py-1.5"
      />
      <Button onClick={() => to(dayAfter(date, 1))}>Later</Button>
      {date !== today && (
        <Button look="quiet" onClick={() => to(today)}>
          Today
        </Button>
      )}
    </fieldset>
  );
}
