import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useId } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

type Activity = Schemas["Activity"];
type Props = { aims: Schemas["Aim"][]; activity?: Activity; done: () => void; id: string };

// OwnActivity takes an activity of the teacher's own, new or edited.
export function OwnActivity({ aims, activity, done, id }: Props) {
  const title = useId();
  const save = useMutation({
    mutationFn: (body: Activity) =>
      answer(api.PUT("/api/activities/{activity}", { params: { path: { activity: id } }, body })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["activities"] });
      done();
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    save.mutate({
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
      easier: "",
      harder: "",
      look: text("look"),
      own: true,
    });
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
      <h2 id={title}>{activity ? `Edit ${activity.title}` : "Your own"}</h2>
      {line("title", "Title", activity?.title, true)}
      <label className="block">
        Aim
        <select name="aim" defaultValue={activity?.aim ?? "steady-beat"} className={field}>
          {aims.map((a) => (
            <option key={a.key} value={a.key}>
              {a.name}
            </option>
          ))}
        </select>
      </label>
      <div className="grid grid-cols-4 gap-2">
        {count("from", "Age from", activity?.from ?? 4, 99)}
        {count("to", "to (0 any)", activity?.to ?? 0, 99)}
        {count("least", "Minutes", activity?.least ?? 1, 15)}
        {count("most", "at most", activity?.most ?? 3, 20)}
      </div>
      <label className="block">
        Instrument
        <select name="family" defaultValue={activity?.family ?? "shared"} className={field}>
          <option value="shared">all</option>
          <option value="keyboard">keyboards</option>
          <option value="bowed">bowed strings</option>
          <option value="plucked">plucked strings</option>
        </select>
      </label>
      {line("level1", "What to do", activity?.levels[0], true)}
      {line("level2", "then", activity?.levels[1])}
      {line("level3", "then", activity?.levels[2])}
      {line("exit", "Exit test", activity?.exit)}
      {line("look", "Look for", activity?.look)}
      {line("things", "At hand", activity?.things)}
      <label className="flex items-center gap-2">
        <input type="checkbox" name="moving" defaultChecked={activity?.moving} /> Away from the seat
      </label>
      <label className="flex items-center gap-2">
        <input type="checkbox" name="touch" defaultChecked={activity?.cautions.includes("touch")} /> Touches a hand: ask
        first
      </label>
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={save.isPending}>
          Keep it
        </Button>
        {activity && <Button onClick={done}>Leave it</Button>}
      </div>
    </form>
  );
}
