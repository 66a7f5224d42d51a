import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { answer, api, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { families } from "../../parts/instruments";
import { SkillField } from "../../parts/SkillField";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Skill = Schemas["Skill"];
type Props = { all: Skill[]; skill?: Skill; done: () => void };

// areaNames are what a skill may be about.
export const areaNames: Record<string, string> = {
  posture: say("studio.area-posture"),
  hands: say("studio.area-hands"),
  rhythm: say("studio.area-rhythm"),
  reading: say("studio.area-reading"),
  theory: say("studio.area-theory"),
  ear: say("studio.area-ear"),
  expression: say("studio.area-expression"),
};
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
  const [was] = useState(skill);
  const save = useKeep<Skill>(
    "skill",
    (body) => answer(api.PUT("/api/skills/{skill}", { params: { path: { skill: id } }, body })),
    () => {
      setDraft(fresh);
      renew(ulid());
      done();
    },
  );
  const submit = (e: FormEvent) => {
    e.preventDefault();
    save.keep({ ...draft, id }, was);
  };
  const task = (i: number, change: Partial<Skill["chain"][number]>) =>
    set({ chain: draft.chain.map((t, j) => (i === j ? { ...t, ...change } : t)) });
  return (
    <form
      onSubmit={submit}
      aria-label={say("studio.skillOwn")}
      className="mb-4 space-y-2 rounded bg-raised p-4 font-[580]"
    >
      <h2>{skill ? say("studio.edit2", { name: skill.name }) : say("studio.skillOwn")}</h2>
      <label className="block">
        {say("studio.nameSay")}
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
          {say("studio.for")}
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
          {say("studio.about")}
          <select className={field} value={draft.area} onChange={(e) => set({ area: e.target.value as Skill["area"] })}>
            {Object.entries(areaNames).map(([area, name]) => (
              <option key={area} value={area}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label>
          {say("studio.weight1Usual")}
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
        name={say("studio.restsOn2")}
        ids={draft.restsOn}
        all={all.filter((s) => s.id !== id && (s.family === "shared" || s.family === draft.family))}
        set={(restsOn) => set({ restsOn })}
      />
      <fieldset>
        <legend>{say("studio.smallTasksPrepareOrder")}</legend>
        {draft.chain.map((t, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: tasks are known by their place
          <div key={i} className="mb-1 grid items-start grid-cols-[1fr_4.5rem_4.5rem_2rem] gap-2">
            <input
              required
              aria-label={say("studio.task", { n: i + 1 })}
              placeholder={say("studio.whatDone")}
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
                aria-label={say("studio.minutesDayTask", { n: i + 1 })}
                className={field}
                value={t.minutes}
                onChange={(e) => task(i, { minutes: Number(e.target.value) })}
              />
              {say("studio.min")}
            </label>
            <label className="text-soft">
              <input
                type="number"
                min={1}
                max={20}
                aria-label={say("studio.weeksTask", { n: i + 1 })}
                className={field}
                value={t.weeks}
                onChange={(e) => task(i, { weeks: Number(e.target.value) })}
              />
              {say("studio.weeks")}
            </label>
            {draft.chain.length > 1 && (
              <button
                type="button"
                aria-label={say("studio.takeTaskOff", { n: i + 1 })}
                onClick={() => set({ chain: draft.chain.filter((_, j) => j !== i) })}
              >
                ×
              </button>
            )}
          </div>
        ))}
        {draft.chain.length < 5 && (
          <Button look="quiet" onClick={() => set({ chain: [...draft.chain, { do: "", minutes: 1, weeks: 1 }] })}>
            {say("studio.anotherTask")}
          </Button>
        )}
      </fieldset>
      {save.asked}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.busy}>
          {say("studio.save")}
        </Button>
        <Button look="quiet" onClick={done}>
          {say("studio.leaveIt")}
        </Button>
      </div>
    </form>
  );
}
