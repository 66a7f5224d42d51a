import { lazy, Suspense, useState } from "react";
import { say } from "../words/say";

const Trials = lazy(() => import("./Trials").then((m) => ({ default: m.Trials })));

type Props = { token: string; student: string };

// Answering is listening and answering at home; what it needs is fetched when it begins.
export function Answering({ token, student }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <section aria-label={say("family.earRhythmTraining")} className="px-4 pt-5">
      <h2 className="text-head">{say("family.earRhythmTraining")}</h2>
      {open ? (
        <Suspense>
          <Trials token={token} student={student} />
        </Suspense>
      ) : (
        <button
          type="button"
          className="mt-2 min-h-11 rounded border border-ink px-4 font-[620]"
          onClick={() => setOpen(true)}
        >
          {say("family.begin")}
        </button>
      )}
    </section>
  );
}
