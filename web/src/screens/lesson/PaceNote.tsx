import { useQuery } from "@tanstack/react-query";
import { paceView } from "../../api/views";
import { sentence } from "../../parts/words";

type Props = { student: string; block: string; minute: number };

// PaceNote says, when the lesson runs over, what gives in the rest of it.
export function PaceNote({ student, block, minute }: Props) {
  const { data } = useQuery(paceView(student, block, minute));
  if (!data || data.over <= 0) return null;
  return (
    <section aria-label="At this pace" aria-live="polite">
      <h2 className="mb-1.5">At this pace</h2>
      <ul className="rounded border-l-4 border-now bg-raised px-3 py-2">
        {data.says.map((r) => (
          <li key={sentence(r)}>{sentence(r)}</li>
        ))}
      </ul>
    </section>
  );
}
