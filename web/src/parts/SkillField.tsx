import { useId, useState } from "react";
import type { Schemas } from "../api/client";
import { say } from "../words/say";
import { field } from "./Field";

type SkillProps = { name: string; ids: string[]; all: Schemas["Skill"][]; set: (ids: string[]) => void };

// SkillField is a list of skills; another is found by typing its name.
export function SkillField({ name, ids, all, set }: SkillProps) {
  const [text, setText] = useState("");
  const list = useId();
  const add = (typed: string) => {
    const found = all.find((s) => s.name.toLowerCase() === typed.trim().toLowerCase());
    if (found && !ids.includes(found.id)) set([...ids, found.id]);
    setText(found ? "" : typed);
  };
  return (
    <fieldset>
      <legend>{name}</legend>
      <ul className="flex flex-wrap gap-1.5">
        {ids.map((id) => {
          const label = all.find((s) => s.id === id)?.name ?? id;
          return (
            <li key={id} className="flex items-center gap-1 rounded border border-line px-2 py-0.5 font-normal">
              {label}
              <button
                type="button"
                aria-label={say("parts.takeOff", { name, label })}
                className="px-1 font-[650]"
                onClick={() => set(ids.filter((x) => x !== id))}
              >
                ×
              </button>
            </li>
          );
        })}
      </ul>
      <input
        aria-label={say("parts.addSkill", { name })}
        placeholder={say("parts.typeSkillsName")}
        list={list}
        value={text}
        onChange={(e) => add(e.target.value)}
        className={`${field} placeholder:text-soft`}
      />
      <datalist id={list}>
        {all
          .filter((s) => !ids.includes(s.id))
          .map((s) => (
            <option key={s.id} value={s.name} />
          ))}
      </datalist>
    </fieldset>
  );
}
