import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { PickInstrument } from "../../parts/instruments";
import { Trouble } from "../../parts/Told";
import { strandNames } from "../../parts/words";
import { say } from "../../words/say";

// TitleList puts a book on the shelf from a pasted list of its titles.
export function TitleList() {
  const [instrument, setInstrument] = useState("piano");
  const add = useMutation({
    mutationFn: (body: Schemas["TitleList"]) => answer(api.POST("/api/shelf/titles", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const text = (name: string) => String(new FormData(form).get(name));
    add.mutate(
      {
        book: text("listBook"),
        instrument,
        strand: text("listStrand") as Schemas["TitleList"]["strand"],
        titles: text("listTitles"),
      },
      { onSuccess: () => form.querySelector<HTMLTextAreaElement>("textarea")?.select() },
    );
  };
  return (
    <form onSubmit={submit} aria-label={say("shelf.bookList")} className="space-y-2 rounded bg-raised p-4 font-[580]">
      <h2>{say("shelf.bookList")}</h2>
      <label className="block">
        {say("shelf.book")}
        <input name="listBook" required maxLength={200} className={field} />
      </label>
      <div className="grid grid-cols-2 gap-2">
        <PickInstrument name="listInstrument" className={field} value={instrument} set={setInstrument} />
        <label>
          {say("shelf.area")}
          <select name="listStrand" className={field}>
            {Object.entries(strandNames).map(([strand, name]) => (
              <option key={strand} value={strand}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      <label className="block">
        {say("shelf.titlesLineEach")}
        <textarea
          name="listTitles"
          required
          rows={5}
          maxLength={20000}
          placeholder={say("shelf.firstUnitRopeWalkSlack")}
          className={field}
        />
      </label>
      <p className="font-normal text-soft">{say("shelf.lineEndsWithColonBegins")}</p>
      {add.error && <Trouble>{add.error.message}</Trouble>}
      <Button type="submit" disabled={add.isPending}>
        {say("shelf.putTitlesShelf")}
      </Button>
      {add.data && (
        <p role="status" className="font-normal text-keep">
          {say("shelf.titlesPutShelf", { items: add.data.items.length })}
          {add.data.twins.length > 0 && say("shelf.wereThere", { n: add.data.twins.length })}.
        </p>
      )}
    </form>
  );
}
