import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type FormEvent, useDeferredValue, useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { skillsView } from "../../api/views";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument, useInstruments } from "../../parts/instruments";
import { SkillField } from "../../parts/SkillField";
import { Shown } from "../../parts/Told";
import { useKeep } from "../../parts/useKeep";
import { strandNames } from "../../parts/words";
import { say } from "../../words/say";
import { NamedField } from "./NamedField";

type Item = Schemas["Item"];

// named leaves lines out that were left empty.
const named = (item: Item): Item => ({
  ...item,
  points: item.points.filter((p) => p.name.trim()),
  parts: item.parts.filter((p) => p.name.trim()),
  steps: item.steps?.map((s) => s.trim()).filter(Boolean),
});

// EditItem changes an item by hand; the graph answers while it is typed.
export function EditItem({ item, close }: { item: Item; close: () => void }) {
  const [draft, setDraft] = useState(item);
  const set = (change: Partial<Item>) => setDraft((was) => ({ ...was, ...change }));
  const skills = useQuery(skillsView);
  const asked = useDeferredValue(draft);
  const check = useQuery({
    queryKey: ["check", asked.id, asked.instrument, asked.brings, asked.needs, asked.revisits],
    queryFn: () => answer(api.POST("/api/items/check", { body: asked })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const [was] = useState(item.title ? item : undefined);
  const save = useKeep<Item>(
    "item",
    (body) => answer(api.PUT("/api/items/{item}", { params: { path: { item: item.id } }, body })),
    close,
  );
  const submit = (e: FormEvent) => {
    e.preventDefault();
    save.keep(named(draft), was);
  };
  const family = useInstruments().of(draft.instrument)?.family;
  return (
    <form
      onSubmit={submit}
      aria-label={item.title ? say("shelf.edit", { title: item.title }) : say("shelf.newItem")}
      className="space-y-3 rounded bg-raised p-4 font-[580]"
    >
      <label className="block">
        {say("shelf.title")}
        <input
          required
          maxLength={200}
          className={field}
          value={draft.title}
          onChange={(e) => set({ title: e.target.value })}
        />
      </label>
      <div className="grid grid-cols-2 gap-3">
        <label>
          {say("shelf.bookCollection")}
          <input className={field} value={draft.book} onChange={(e) => set({ book: e.target.value })} />
        </label>
        <label>
          {say("shelf.unit")}
          <input className={field} value={draft.unit} onChange={(e) => set({ unit: e.target.value })} />
        </label>
        {!item.title && (
          <PickInstrument
            className={field}
            value={draft.instrument}
            set={(instrument) => set({ instrument, brings: [], needs: [], revisits: [] })}
          />
        )}
        {!item.hasScore && (
          <label>
            {say("shelf.bars")}
            <input
              type="number"
              min={0}
              className={field}
              value={draft.bars}
              onChange={(e) => set({ bars: Number(e.target.value) })}
            />
          </label>
        )}
        <label>
          {say("shelf.area")}
          <select
            className={field}
            value={draft.strand}
            onChange={(e) => set({ strand: e.target.value as Item["strand"] })}
          >
            {Object.entries(strandNames).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label>
          {say("shelf.taste")}
          <select
            className={field}
            value={draft.taste ?? ""}
            onChange={(e) => set({ taste: (e.target.value || undefined) as Item["taste"] })}
          >
            <option value="">–</option>
            <option>{say("shelf.lively")}</option>
            <option>{say("shelf.lyrical")}</option>
            <option>{say("shelf.familiar")}</option>
          </select>
        </label>
      </div>
      <Shown query={skills}>
        {(all) => {
          const offered = all.skills.filter((s) => s.family === "shared" || s.family === family);
          return (
            <>
              <SkillField
                name={say("shelf.brings")}
                ids={draft.brings}
                all={offered}
                set={(brings) => set({ brings })}
              />
              <SkillField name={say("shelf.needs")} ids={draft.needs} all={offered} set={(needs) => set({ needs })} />
              <SkillField
                name={say("shelf.revisits")}
                ids={draft.revisits}
                all={offered}
                set={(revisits) => set({ revisits })}
              />
            </>
          );
        }}
      </Shown>
      {(check.data?.faults ?? []).length > 0 && (
        <ul
          role="status"
          aria-label={say("shelf.faults")}
          className="space-y-0.5 border-l-4 border-warn pl-2 font-normal"
        >
          {check.data?.faults.map((f) => (
            <li key={f.why.says}>{f.why.says}</li>
          ))}
        </ul>
      )}
      <div className="grid grid-cols-2 gap-3">
        <NamedField
          name={say("shelf.goals")}
          one={say("shelf.goal")}
          list={draft.points}
          set={(points) => set({ points })}
        />
        <NamedField
          name={say("shelf.parts")}
          one={say("shelf.part")}
          list={draft.parts}
          set={(parts) => set({ parts })}
        />
      </div>
      {(draft.strand === "technique" || draft.strand === "reading") && <Asked draft={draft} set={set} />}
      <label className="block">
        {say("shelf.saidBeforePlaying")}
        <input className={field} value={draft.cue ?? ""} onChange={(e) => set({ cue: e.target.value })} />
      </label>
      {save.asked}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.busy}>
          {say("shelf.save")}
        </Button>
        <Button look="quiet" onClick={close}>
          {say("shelf.leaveWas")}
        </Button>
      </div>
    </form>
  );
}

type AskedProps = { draft: Item; set: (change: Partial<Item>) => void };

// Asked is what technique or reading consists of: notes made by rule, cards, or steps.
function Asked({ draft, set }: AskedProps) {
  return (
    <fieldset className="grid grid-cols-2 gap-3">
      <legend className="sr-only">{say("shelf.whatAsks")}</legend>
      <label>
        {say("shelf.exerciseMadeRule")}
        <input
          className={field}
          maxLength={80}
          placeholder={say("shelf.scaleEbMajorBoth2")}
          value={draft.exercise ?? ""}
          onChange={(e) => set({ exercise: e.target.value || undefined })}
        />
      </label>
      <label>
        {say("shelf.cards")}
        <input
          className={field}
          maxLength={80}
          placeholder={say("shelf.landmarksSteps")}
          value={draft.cards ?? ""}
          onChange={(e) => set({ cards: e.target.value || undefined })}
        />
      </label>
      <label className="col-span-2">
        {say("shelf.stepsLineEachWhatHas")}
        <textarea
          className={field}
          rows={3}
          value={(draft.steps ?? []).join("\n")}
          onChange={(e) => set({ steps: e.target.value ? e.target.value.split("\n") : undefined })}
        />
      </label>
    </fieldset>
  );
}
