import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { families } from "../../parts/instruments";
import { SkillField } from "../../parts/SkillField";
import { Trouble } from "../../parts/Told";

type Skill = Schemas["Skill"];
type Props = { all: Skill[]; skill?: Skill; done: () => void };

const areas = ["posture", "hands", "rhythm", "reading", "theory", "ear", "expression"] as const;
const fresh: Skill = {
  id: "",
  name: "",
  family: "shared",
  area: "hands",
  weight: 1,
  restsOn: [],
  chain: [{ do: "", minutes: 1, weeks: 1 }],
};

// OwnSkill takes a skill of the studio's own: what it rests on, how heavy it is, and
// the small tasks that prepare it. The graph is checked by the server.
export function OwnSkill({ all, skill, done }: Props) {
  const [draft, setDraft] = useState(skill ?? fresh);
  const [id, renew] = useState(skill?.id ?? ulid());
  const set = (change: Partial<Skill>) => setDraft((was) => ({ ...was, ...change }));
  const save = useMutation({
    mutationFn: () =>
      answer(api.PUT("/api/skills/{skill}", { params: { path: { skill: id } }, body: { ...draft, id } })),
    onSuccess: async () => {
      await queries.invalidateQueries();
      setDraft(fresh);
      renew(ulid());
      done();
    },
  });
  const submit = (e: FormEvent) => {
    e.preventDefault();
    save.mutate();
  };
  const task = (i: number, change: Partial<Skill["chain"][number]>) =>
    set({ chain: draft.chain.map((t, j) => (i === j ? { ...t, ...change } : t)) });
  return (
    <form
      onSubmit={submit}
      aria-label="A skill of your own"
      className="mb-4 space-y-2 rounded bg-raised p-4 font-[580]"
    >
      <h2>{skill ? `Edit ${skill.name}` : "A skill of your own"}</h2>
      <label className="block">
        Name, as you say it
        <input
          required
          maxLength={80}
          className={field}
          value={draft.name}
          onChange={(e) => set({ name: e.target.value })}
        />
      </label>
      <div className="grid grid-cols-3 gap-2">
        <label>
          For
          <select
            className={field}
            value={draft.family}
            onChange={(e) => set({ family: e.target.value as Skill["family"], restsOn: [] })}
          >
            {Object.entries(families).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label>
          About
          <select className={field} value={draft.area} onChange={(e) => set({ area: e.target.value as Skill["area"] })}>
            {areas.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </select>
        </label>
        <label>
          Weight, 1 is usual
          <input
            type="number"
            min={0.3}
            max={3}
            step={0.1}
            className={field}
            value={draft.weight}
            onChange={(e) => set({ weight: Number(e.target.value) })}
          />
        </label>
      </div>
      <SkillField
        name="Rests on"
        ids={draft.restsOn}
        all={all.filter((s) => s.id !== id && (s.family === "shared" || s.family === draft.family))}
        set={(restsOn) => set({ restsOn })}
      />
      <fieldset>
        <legend>The small tasks that prepare it, in order</legend>
        {draft.chain.map((t, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: tasks are known by their place
          <div key={i} className="mb-1 grid items-start grid-cols-[1fr_4.5rem_4.5rem_2rem] gap-2">
            <input
              required
              aria-label={`Task ${i + 1}`}
              placeholder="What is done"
              maxLength={200}
              className={`${field} placeholder:text-soft`}
              value={t.do}
              onChange={(e) => task(i, { do: e.target.value })}
            />
            <label className="text-soft">
              <input
                type="number"
                min={1}
                max={15}
                aria-label={`Minutes a day of task ${i + 1}`}
                className={field}
                value={t.minutes}
                onChange={(e) => task(i, { minutes: Number(e.target.value) })}
              />
              min
            </label>
            <label className="text-soft">
              <input
                type="number"
                min={1}
                max={20}
                aria-label={`Weeks of task ${i + 1}`}
                className={field}
                value={t.weeks}
                onChange={(e) => task(i, { weeks: Number(e.target.value) })}
              />
              weeks
            </label>
            {draft.chain.length > 1 && (
              <button
                type="button"
                aria-label={`Take task ${i + 1} off`}
                onClick={() => set({ chain: draft.chain.filter((_, j) => j !== i) })}
              >
                ×
              </button>
            )}
          </div>
        ))}
        {draft.chain.length < 5 && (
          <Button look="quiet" onClick={() => set({ chain: [...draft.chain, { do: "", minutes: 1, weeks: 1 }] })}>
            Another task
          </Button>
        )}
      </fieldset>
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.isPending}>
          Keep it
        </Button>
        <Button look="quiet" onClick={done}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
