import type { Schemas } from "../../api/client";
import { minutesOf, timeOfDay, weekdays, weekOrder } from "../../parts/words";
import { say } from "../../words/say";

type SlotView = Schemas["SlotView"];
type Props = { slots: SlotView[]; picked?: string; pick: (student: string) => void };

// Week draws each weekday as a ribbon, to scale like the day's own at the head of the
// page. Lessons that overlap stand one under another.
export function Week({ slots: all, picked, pick }: Props) {
  const agreed = all.filter((s) => s.slot.rhythm === "irregular");
  const slots = all.filter((s) => s.slot.rhythm !== "irregular").flatMap(taken);
  const from = Math.floor(Math.min(15 * 60, ...slots.map((s) => minutesOf(s.slot.start))) / 60) * 60;
  const to = Math.ceil(Math.max(18 * 60, ...slots.map((s) => minutesOf(s.slot.start) + s.slot.minutes)) / 60) * 60;
  const at = (m: number) => `${((m - from) / (to - from)) * 100}%`;
  const hours = Array.from({ length: (to - from) / 60 + 1 }, (_, i) => from + i * 60);
  return (
    <section aria-label={say("calendar.weeklyLessons")} className="overflow-x-auto rounded bg-raised py-3 pr-8 pl-3">
      <div className="min-w-[640px]">
        {weekOrder.map((d) => {
          const day = slots.filter((s) => s.slot.weekday === d);
          if (d === 0 && day.length === 0) return null;
          return (
            <div key={d} className="grid grid-cols-[3.5rem_1fr] border-t border-line first:border-0">
              <h2 className="py-2.5 text-body">{weekdays[d]?.slice(0, 3)}</h2>
              <div className="relative min-h-13">
                {hours.map((h) => (
                  <span key={h} className="absolute inset-y-0 border-l border-faint" style={{ left: at(h) }} />
                ))}
                {day.map((s) => (
                  <Lesson
                    key={s.student + s.slot.weekday}
                    slot={s}
                    day={day}
                    at={at}
                    picked={picked === s.student}
                    pick={pick}
                  />
                ))}
              </div>
            </div>
          );
        })}
        <div className="relative ml-14 h-5 border-t border-line text-small text-soft">
          {hours.map((h) => (
            <span key={h} className="absolute -translate-x-1/2" style={{ left: at(h) }}>
              {h / 60}:00
            </span>
          ))}
        </div>
        {agreed.length > 0 && (
          <p className="mt-2 flex flex-wrap items-center gap-2">
            {say("calendar.byAgreement")}
            {agreed.map((s) => (
              <button
                key={s.student}
                type="button"
                aria-pressed={picked === s.student}
                className="rounded border border-line px-2 py-1 hover:bg-faint"
                onClick={() => pick(s.student)}
              >
                {s.name}
              </button>
            ))}
          </p>
        )}
      </div>
    </section>
  );
}

// taken are the hours of a week that a student's lessons take, each as a slot.
const taken = (s: SlotView): SlotView[] =>
  s.slot.rhythm === "twice" && s.slot.second ? [s, { ...s, slot: { ...s.slot, ...s.slot.second } }] : [s];

type LessonProps = {
  slot: SlotView;
  day: SlotView[];
  at: (m: number) => string;
  picked: boolean;
  pick: (student: string) => void;
};

function Lesson({ slot: { student, name, slot }, day, at, picked, pick }: LessonProps) {
  const start = minutesOf(slot.start);
  const beside = day.filter(
    (o) => minutesOf(o.slot.start) < start + slot.minutes && start < minutesOf(o.slot.start) + o.slot.minutes,
  );
  const row = beside.findIndex((o) => o.student === student);
  const high = 40 / beside.length;
  return (
    <button
      type="button"
      aria-pressed={picked}
      onClick={() => pick(student)}
      className={`absolute rounded-sm border-l-[3px] text-left whitespace-nowrap ${
        slot.minutes < 25 ? "px-px text-small tracking-tighter" : "overflow-hidden px-1"
      } ${beside.length > 1 ? "border-warn" : "border-soft"} ${picked ? "bg-ink text-raised" : "bg-faint hover:bg-line"}`}
      style={{
        left: at(start),
        width: `calc(${at(start + slot.minutes)} - ${at(start)} - 2px)`,
        top: 6 + row * (high + 1),
        height: high,
        lineHeight: beside.length > 1 ? `${high}px` : undefined,
      }}
    >
      <b className="font-[620] tracking-tight">{name}</b>{" "}
      <span className={beside.length === 1 && slot.minutes >= 25 ? "block text-small leading-tight" : "sr-only"}>
        {timeOfDay(slot.start)}
      </span>
      <span className="sr-only">
        {say("calendar.minutes", { weekdays: weekdays[slot.weekday], minutes: slot.minutes })}
      </span>
    </button>
  );
}
