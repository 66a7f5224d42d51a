import { useKept } from "../api/client";
import { forget, useOutbox } from "../api/outbox";
import { plural } from "./words";

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
          <b>No connection.</b> What you see is as this device last saw it{kept && `, at ${timeOf(kept)}`}; marks are
          kept here and sent when the connection is back.
        </p>
      )}
      {trouble && pending > 0 && (
        <p className="border-b border-line bg-now-tint px-4 py-1.5" data-testid="waiting">
          <b>{plural(pending, "mark")} kept on this device.</b> {trouble}
        </p>
      )}
      {refused.map((w) => (
        <p key={w.fact.id} className="flex gap-3 border-b border-line bg-raised px-4 py-1.5 text-warn" role="alert">
          <span className="flex-1">
            A mark ({w.fact.body.kind.replaceAll("_", " ")}) was refused: {w.refused}
          </span>
          <button type="button" className="font-[620] underline" onClick={() => forget(w.fact.id)}>
            Drop it
          </button>
        </p>
      ))}
    </div>
  );
}
