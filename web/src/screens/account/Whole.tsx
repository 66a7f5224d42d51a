import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type FormEvent, useRef, useState } from "react";
import { answer, api, forgetKept, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { field } from "../../parts/Field";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";

// Whole takes the studio along as one file, brings one in, and deletes what is there.
export function Whole({ studio }: { studio: string }) {
  const input = useRef<HTMLInputElement>(null);
  const [asking, ask] = useState<"content" | "all">();
  const go = useNavigate();
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const body = JSON.parse(await file.text().catch(() => "")) as Schemas["StudioArchive"];
      await answer(api.POST("/api/studio", { body }));
    },
    onSuccess: () => queries.invalidateQueries(),
  });
  const drop = useMutation({
    mutationFn: (body: { name: string; password: string; content: boolean }) =>
      answer(api.DELETE("/api/studio", { body })),
    onSuccess: async (_, body) => {
      ask(undefined);
      bring.reset();
      if (body.content) return queries.invalidateQueries();
      queries.clear();
      await forgetKept();
      await go({ to: "/sign-in" });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    drop.mutate({
      name: String(form.get("studio")),
      password: String(form.get("password")),
      content: asking === "content",
    });
  };
  return (
    <section aria-label={say("account.wholeStudio")} className="space-y-2 rounded bg-raised p-4">
      <h2>{say("account.wholeStudio")}</h2>
      <p className="text-soft">{say("account.oneFileHoldsStudentsMarks")}</p>
      <div className="flex flex-wrap items-center gap-2">
        <a
          href="/api/studio"
          download={`${studio}.json`}
          className="rounded border border-ink px-4 py-2 font-[620] hover:bg-faint"
        >
          {say("account.takeAlong")}
        </a>
        <Button onClick={() => input.current?.click()} disabled={bring.isPending}>
          {bring.isPending ? say("account.bringingItIn") : say("account.bringOne")}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".json,application/json"
          aria-label={say("account.archiveStudio")}
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) bring.mutate(file);
            e.target.value = "";
          }}
        />
      </div>
      {bring.error && (
        <Trouble>
          {bring.error instanceof SyntaxError ? say("account.fileNoArchiveStudio") : bring.error.message}
        </Trouble>
      )}
      {bring.isSuccess && (
        <p role="status" className="flex items-center gap-3 text-keep">
          {say("account.imported")}
          <Button onClick={() => ask("content")}>{say("account.takeOutAgain")}</Button>
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="quiet" onClick={() => ask("content")}>
          {say("account.emptyStudio")}
        </Button>
        <Button look="quiet" onClick={() => ask("all")}>
          {say("account.deleteStudio")}
        </Button>
      </div>
      {asking && (
        <form onSubmit={submit} className="space-y-2 rounded border-l-4 border-warn bg-ground p-3">
          <p>
            {asking === "content" ? say("account.everyStudentWithAllNotes") : say("account.studioAccountAllAreDeleted")}{" "}
            {say("account.takeAlongFirst")}
          </p>
          <label className="block font-[580]">
            {say("account.writeGo", { studio })}
            <input name="studio" required autoComplete="off" className={field} />
          </label>
          <label className="block font-[580]">
            {say("account.yourPassword")}
            <input name="password" type="password" required autoComplete="current-password" className={field} />
          </label>
          {drop.error && <Trouble>{drop.error.message}</Trouble>}
          <div className="flex gap-2">
            <Button type="submit" disabled={drop.isPending}>
              {asking === "content" ? say("account.emptyIt") : say("account.deleteIt")}
            </Button>
            <Button look="quiet" onClick={() => ask(undefined)}>
              {say("account.leaveIt")}
            </Button>
          </div>
        </form>
      )}
    </section>
  );
}
