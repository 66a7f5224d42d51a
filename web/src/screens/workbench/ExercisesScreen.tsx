import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { exerciseMade, ladderView, useDay } from "../../api/views";
import { type Instrument, PickInstrument, useInstruments } from "../../parts/instruments";
import { PickStudent } from "../../parts/PickStudent";
import { Shown, Trouble } from "../../parts/Told";
import { WorkbenchPlaces } from "../../parts/WorkbenchPlaces";
import { say } from "../../words/say";
import { Chooser, first } from "./Chooser";
import { Made } from "./Made";

type Student = Schemas["StudentCard"];

// ExercisesScreen makes scales, patterns, chords, bows, rolls and cross-rhythms by rule:
// chosen, seen with their fingers, heard, printed, and put on a ladder. For a student it
// opens on what this week asks.
export function ExercisesScreen() {
  const { student: asked, exercise } = useSearch({ from: "/inside/workbench/exercises" });
  const go = useNavigate();
  const day = useDay().data;
  const { of, offers } = useInstruments();
  const [other, setOther] = useState("piano");
  const student = day?.students.find((s) => s.id === asked);
  const instrument = of(student?.instrument ?? other);
  return (
    <main className="flex flex-1 flex-col gap-3 px-4 py-3">
      <WorkbenchPlaces student={student?.id} />
      <div className="screen-only flex flex-wrap items-end gap-4 print:hidden">
        <h1 className="text-head">{say("workbench.scalesPatterns")}</h1>
        <PickStudent
          anybody
          value={student?.id ?? ""}
          set={(id) => void go({ to: "/workbench/exercises", search: { student: id || undefined } })}
        />
        {!student && (
          <PickInstrument
            value={other}
            set={setOther}
            className="ml-2 rounded border border-line bg-raised px-2 py-1.5"
          />
        )}
      </div>
      {instrument && student && (
        <ForStudent key={student.id} instrument={instrument} student={student} begin={exercise} />
      )}
      {instrument && !student && (
        <Bench
          key={instrument.id}
          instrument={instrument}
          begin={exercise ?? first(instrument, offers(instrument.id))}
        />
      )}
    </main>
  );
}

type ForProps = { instrument: Instrument; student: Student; begin?: string };

// ForStudent waits for what the student practises this week, to open on it.
function ForStudent({ instrument, student, begin }: ForProps) {
  const ladder = useQuery(ladderView(student.id));
  const { offers } = useInstruments();
  return (
    <Shown query={ladder}>
      {(view) => {
        const current = view.rungs.filter((r) => r.state === "current");
        const week = current.flatMap((r) => r.plays);
        const rungOf = (exercise: string) => current.find((r) => r.plays.some((p) => p.exercise === exercise))?.id;
        return (
          <Bench
            instrument={instrument}
            student={student}
            week={week}
            rungOf={rungOf}
            begin={begin ?? week[0]?.exercise ?? first(instrument, offers(instrument.id))}
          />
        );
      }}
    </Shown>
  );
}

type BenchProps = {
  instrument: Instrument;
  student?: Student;
  week?: Schemas["PlayView"][];
  rungOf?: (exercise: string) => string | undefined;
  begin: string;
};

// Bench chooses an exercise and shows it.
function Bench({ instrument, student, week = [], rungOf, begin }: BenchProps) {
  const [exercise, choose] = useState(begin);
  const made = useQuery({ ...exerciseMade(exercise, instrument.id), placeholderData: keepPreviousData });
  return (
    <div className="grid gap-4 lg:grid-cols-[320px_1fr] print:block">
      {made.data && (
        <Chooser instrument={instrument} chosen={made.data.chosen} week={week} exercise={exercise} choose={choose} />
      )}
      <section aria-label={say("workbench.theExercise")} className="min-w-0">
        {made.error && <Trouble again={made.refetch}>{made.error.message}</Trouble>}
        {made.data?.wrong && <Trouble>{made.data.wrong}</Trouble>}
        {made.data && !made.data.wrong && (
          <Made
            key={made.data.exercise}
            view={made.data}
            instrument={instrument}
            student={student}
            rung={rungOf?.(exercise)}
          />
        )}
      </section>
    </div>
  );
}
