import { useQuery } from "@tanstack/react-query";
import { paceView } from "../../api/views";
import { say } from "../../words/say";

type Props = { student: string; block: string; minute: number };

// PaceNote says, when the lesson runs over, what gives in the rest of it.
export function PaceNote({ student, block, minute }: Props) {
  const { data } = useQuery(paceView(student, block, minute));
  if (!data || data.over <= 0) return null;
  return (
    <section aria-label={say("lesson.atThisPace")} aria-live="polite">
      <h2 className="mb-1.5">{say("lesson.atThisPace")}</h2>
      <ul className="rounded border-l-4 border-now bg-raised px-3 py-2">
        {data.says.map((r) => (
          <li key={r.says}>{r.says}</li>
        ))}
      </ul>
    </section>
  );
}
