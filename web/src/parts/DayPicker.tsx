import { weekdays, weekdaysShort, weekOrder } from "./dates";

type Props = { days: number[]; set: (days: number[]) => void };

// DayPicker chooses days of the week, 0 for Sunday, in the week's order.
export function DayPicker({ days, set }: Props) {
  const flip = (d: number) => {
    const list = days.includes(d) ? days.filter((x) => x !== d) : [...days, d];
    set(weekOrder.filter((x) => list.includes(x)));
  };
  return (
    <div className="grid w-full grid-cols-7 gap-1">
      {weekOrder.map((d) => (
        <button
          type="button"
          key={d}
          aria-pressed={days.includes(d)}
          className={`min-h-11 rounded border ${days.includes(d) ? "border-ink bg-ink text-raised" : "border-line bg-raised"}`}
          onClick={() => flip(d)}
        >
          <span aria-hidden="true">{weekdaysShort[d]}</span>
          <span className="sr-only">{weekdays[d]}</span>
        </button>
      ))}
    </div>
  );
}
