import { type FormEvent, useId, useState } from "react";
import { answer, api, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { useKeep } from "../../parts/useKeep";
import { say } from "../../words/say";

type Activity = Schemas["Activity"];
type Props = { aims: Schemas["Aim"][]; activity?: Activity; done: () => void; id: string };

// OwnActivity takes an activity of the teacher's own, new or edited.
export function OwnActivity({ aims, activity, done, id }: Props) {
  const title = useId();
  const [was] = useState(activity);
  const save = useKeep<Activity>(
    "activity",
    (body) => answer(api.PUT("/api/activities/{activity}", { params: { path: { activity: id } }, body })),
    done,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    const now: Activity = {
      ...was,
      id,
      title: text("title"),
      aim: text("aim"),
      from: Number(text("from")),
      to: Number(text("to")),
      least: Number(text("least")),
      most: Number(text("most")),
      family: text("family") as Activity["family"],
      moving: form.get("moving") !== null,
      things: text("things"),
      cautions: form.get("touch") !== null ? ["touch"] : [],
      levels: ["level1", "level2", "level3"].map(text).filter((l) => l !== ""),
      exit: text("exit"),
      easier: was?.easier ?? "",
      harder: was?.harder ?? "",
      look: text("look"),
      own: true,
    };
    save.keep(now, was);
  };
  const field = "mt-0.5 w-full rounded border border-line bg-ground px-2 py-1.5";
  const line = (name: string, label: string, value = "", required = false) => (
    <label className="block">
      {label}
      <input name={name} defaultValue={value} maxLength={200} required={required} className={field} />
    </label>
  );
  const count = (name: string, label: string, value: number, most: number) => (
    <label className="block">
      {label}
      <input name={name} type="number" min={0} max={most} defaultValue={value} className={field} />
    </label>
  );
  return (
    <form onSubmit={submit} aria-labelledby={title} className="h-fit space-y-2 rounded bg-raised p-4">
      <h2 id={title}>{activity ? say("activities.edit2", { title: activity.title }) : say("activities.yourOwn")}</h2>
      {line("title", say("activities.title"), activity?.title, true)}
      <label className="block">
        {say("activities.aim")}
        <select name="aim" defaultValue={activity?.aim ?? "steady-beat"} className={field}>
          {aims.map((a) => (
            <option key={a.key} value={a.key}>
              {a.name}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-4 gap-2">
        {count("from", say("activities.ageFrom"), activity?.from ?? 4, 99)}
        {count("to", say("activities.0Any"), activity?.to ?? 0, 99)}
        {count("least", say("activities.minutes"), activity?.least ?? 1, 15)}
        {count("most", say("activities.atMost"), activity?.most ?? 3, 20)}
      </div>
      <label className="block">
        {say("activities.instrument")}
        <select name="family" defaultValue={activity?.family ?? "shared"} className={field}>
          <option value="shared">{say("activities.all")}</option>
          <option value="keyboard">{say("activities.keyboards")}</option>
          <option value="bowed">{say("activities.bowedStrings")}</option>
          <option value="plucked">{say("activities.pluckedStrings")}</option>
        </select>
      </label>
      {line("level1", say("activities.whatDo"), activity?.levels[0], true)}
      {line("level2", say("activities.then"), activity?.levels[1])}
      {line("level3", say("activities.then"), activity?.levels[2])}
      {line("exit", say("activities.exitTest2"), activity?.exit)}
      {line("look", say("activities.lookFor"), activity?.look)}
      {line("things", say("activities.atHand"), activity?.things)}
      <label className="flex items-center gap-2">
        <input type="checkbox" name="moving" defaultChecked={activity?.moving} /> {say("activities.awayFromSeat")}
      </label>
      <label className="flex items-center gap-2">
        <input type="checkbox" name="touch" defaultChecked={activity?.cautions.includes("touch")} />{" "}
        {say("activities.touchesHandAskFirst")}
      </label>
      {save.asked}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.busy}>
          {say("activities.save")}
        </Button>
        {activity && <Button onClick={done}>{say("activities.leaveIt")}</Button>}
      </div>
    </form>
  );
}
