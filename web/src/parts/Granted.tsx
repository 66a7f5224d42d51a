import { Link } from "@tanstack/react-router";
import type { Schemas } from "../api/client";
import { tell } from "../api/outbox";
import { say } from "../words/say";

// Granted lists what is taken for granted of a student from elsewhere, to be ticked off as it is
// heard: it is there, or it is missing.
export function Granted({ student, skills }: { student: string; skills: Schemas["Question"][] }) {
  if (skills.length === 0) return null;
  const answer = (probe: string, outcome: "pass" | "not-yet") => tell(student, { kind: "probed", probe, outcome });
  return (
    <details className="mt-4 rounded bg-raised px-3 py-2" open={skills.length <= 6}>
      <summary className="cursor-pointer font-[650]">
        {say("parts.takenGrantedSkills", { skills: skills.length })}
      </summary>
      <p className="mt-1 text-soft">{say("parts.fromWhereLadderBeginsTick")}</p>
      <Link
        to="/students/$student/placement"
        params={{ student }}
        className="mt-1 inline-block underline underline-offset-4"
      >
        {say("parts.askInstrumentInstead")}
      </Link>
      <ul className="mt-1 divide-y divide-faint">
        {skills.map((s) => (
          <li key={s.skill} className="flex items-center gap-2 py-1">
            <span className="flex-1">{s.name}</span>
            <Answer
              name={say("parts.thereNamed", { name: s.name })}
              says={say("parts.there")}
              touch={() => answer(s.skill, "pass")}
            />
            <Answer
              name={say("parts.missingNamed", { name: s.name })}
              says={say("parts.missing")}
              touch={() => answer(s.skill, "not-yet")}
            />
          </li>
        ))}
      </ul>
    </details>
  );
}

function Answer({ name, says, touch }: { name: string; says: string; touch: () => void }) {
  return (
    <button
      type="button"
      aria-label={name}
      className="rounded border border-line px-2 py-0.5 font-[620] hover:bg-ground"
      onClick={touch}
    >
      {says}
    </button>
  );
}
