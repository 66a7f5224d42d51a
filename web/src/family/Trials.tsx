import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../api/client";
import { act } from "../api/outbox";
import { Trial } from "../parts/Trial";
import { say } from "../words/say";
import { listeningView } from "./view";

type Props = { token: string; student: string };

// Trials are what can be listened to and answered at home: what comes next, or another that was chosen.
export function Trials({ token, student }: Props) {
  const query = useQuery(listeningView(token));
  const [chosen, choose] = useState<string>();
  if (query.error)
    return (
      <p role="alert" className="mt-2 text-soft">
        {say("family.cannotFetchedJustNowTry")}
      </p>
    );
  if (!query.data) return null;
  const { trials, next } = query.data;
  const trial = trials.find((t) => t.skill === (chosen ?? next)) ?? trials[0];
  if (!trial) return null;
  const path = { token };
  return (
    <div className="mt-2 space-y-2">
      <label className="block">
        {say("family.what")}
        <select
          value={trial.skill}
          onChange={(e) => choose(e.target.value)}
          className="block min-h-11 w-full rounded border border-line bg-raised px-2"
        >
          {trials.map((t) => (
            <option key={t.skill} value={t.skill}>
              {t.name}
              {t.skill === next ? say("family.comesNext") : t.passed ? say("family.passed") : ""}
            </option>
          ))}
        </select>
      </label>
      <Trial
        key={trial.skill}
        trial={trial}
        judges={false}
        call={(body) => answer(api.POST("/api/family/{token}/listening/call", { params: { path }, body }))}
        reply={(body) => answer(api.POST("/api/family/{token}/listening/reply", { params: { path }, body }))}
        keep={(bodies) => act(student, bodies)}
      />
      <p className="text-soft">{say("family.hearAllHoldThenAnswer")}</p>
    </div>
  );
}
