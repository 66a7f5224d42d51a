import { useQuery } from "@tanstack/react-query";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { seatView, useDay } from "../../api/views";
import { PickStudent } from "../../parts/PickStudent";
import { Shown } from "../../parts/Told";
import { WorkbenchPlaces } from "../../parts/WorkbenchPlaces";
import { say } from "../../words/say";
import { Seat } from "./Seat";

// WorkbenchScreen holds what is measured at the instrument: the seat. Exercises have a
// screen of their own beside it.
export function WorkbenchScreen() {
  const { student } = useSearch({ from: "/inside/workbench" });
  const day = useDay().data;
  const go = useNavigate();
  const chosen = student || day?.segments[0]?.student || day?.students[0]?.id || "";
  return (
    <main className="flex flex-1 flex-col gap-3 px-4 py-3">
      <WorkbenchPlaces student={chosen || undefined} />
      <div className="screen-only flex flex-wrap items-center gap-4">
        <h1 className="text-head">{say("workbench.sittingDown")}</h1>
        <PickStudent value={chosen} set={(student) => void go({ to: "/workbench", search: { student } })} ages />
      </div>
      {chosen ? (
        <At key={chosen} student={chosen} />
      ) : (
        <p className="text-soft">{say("workbench.takeStudentFirstStudio")}</p>
      )}
    </main>
  );
}

function At({ student }: { student: string }) {
  const query = useQuery(seatView(student));
  return <Shown query={query}>{(view) => <Seat view={view} />}</Shown>;
}
