import { useDay } from "../api/views";
import { say } from "../words/say";

type Props = { value: string; set: (student: string) => void; anybody?: boolean; ages?: boolean };

// PickStudent chooses whom a page of the workbench is for.
export function PickStudent({ value, set, anybody = false, ages = false }: Props) {
  const students = useDay().data?.students;
  return (
    <label className="flex items-center gap-2">
      {say("parts.for")}
      <select
        value={value}
        onChange={(e) => set(e.target.value)}
        className="rounded border border-line bg-raised px-2 py-1.5"
      >
        {anybody && <option value="">{say("parts.anybody")}</option>}
        {students?.map((s) => (
          <option key={s.id} value={s.id}>
            {s.firstName} {s.familyName}
            {ages && `, ${s.age}`}
          </option>
        ))}
      </select>
    </label>
  );
}
