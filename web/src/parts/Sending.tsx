import { useKept } from "../api/client";
import { forget, useOutbox } from "../api/outbox";
import { rich, say } from "../words/say";

const timeOf = (date: string) =>
  new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" }).format(new Date(date));

// Sending says when marks have not reached the studio's server yet, and which
// were refused. It is quiet while all is well.
export function Sending() {
  const { waiting, trouble } = useOutbox();
  const kept = useKept();
  const refused = waiting.filter((w) => w.refused);
  const pending = waiting.length - refused.length;
  return (
    <div aria-live="polite" className="screen-only">
      {kept !== undefined && (
        <p className="border-b border-line bg-now-tint px-4 py-1.5">
          {rich("parts.noConnectionWhatSeeDevice", { b: (text) => <b>{text}</b> })}
          {kept && say("parts.at", { time: timeOf(kept) })}
          {say("parts.marksAreKeptHereSent")}
        </p>
      )}
      {trouble && pending > 0 && (
        <p className="border-b border-line bg-now-tint px-4 py-1.5" data-testid="waiting">
          <b>{say("parts.marksKeptDevice", { pending })}</b> {trouble}
        </p>
      )}
      {refused.map((w) => (
        <p key={w.fact.id} className="flex gap-3 border-b border-line bg-raised px-4 py-1.5 text-warn" role="alert">
          <span className="flex-1">
            {say("parts.markWasRefused", { kind: w.fact.body.kind.replaceAll("_", " "), refused: w.refused })}
          </span>
          <button type="button" className="font-[620] underline" onClick={() => forget(w.fact.id)}>
            {say("parts.dropIt")}
          </button>
        </p>
      ))}
    </div>
  );
}
