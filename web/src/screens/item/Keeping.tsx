import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { useId } from "react";
import { answer, api, queries, type Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

type Props = { item: Schemas["Item"]; used: boolean };

// Keeping gives an item another score, lays it away, or takes it off the shelf where
// nobody has it.
export function Keeping({ item, used }: Props) {
  const file = useId();
  const navigate = useNavigate();
  const at = { params: { path: { item: item.id } } };
  const replace = useMutation({
    mutationFn: (f: File) =>
      answer(
        api.PUT("/api/items/{item}/score", {
          params: { ...at.params, query: { name: f.name } },
          body: f as unknown as string,
          bodySerializer: (b) => b as unknown as BodyInit,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
  const archive = useMutation({
    mutationFn: () => answer(api.PUT("/api/items/{item}", { ...at, body: { ...item, archived: !item.archived } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  const drop = useMutation({
    mutationFn: () => answer(api.DELETE("/api/items/{item}", at)),
    onSuccess: async () => {
      await navigate({ to: "/shelf" });
      await queries.invalidateQueries({ queryKey: ["shelf"] });
    },
  });
  const trouble = replace.error ?? archive.error ?? drop.error;
  return (
    <section aria-label="Keeping" className="space-y-2 rounded bg-raised p-4">
      <h2>Keeping</h2>
      {item.archived && <p>Laid away: whoever has it goes on, nobody is offered it.</p>}
      <div className="flex flex-wrap gap-2">
        <label
          htmlFor={file}
          className="flex cursor-pointer items-center rounded border border-ink bg-raised px-4 py-2 font-[620] focus-within:outline-2 hover:bg-faint"
        >
          {item.hasScore ? "Another score" : "Give it a score"}
          <input
            id={file}
            type="file"
            accept=".musicxml,.xml,.mxl,.abc,.mid"
            className="sr-only"
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              if (chosen) replace.mutate(chosen);
              e.target.value = "";
            }}
          />
        </label>
        <Button onClick={() => archive.mutate()} disabled={archive.isPending}>
          {item.archived ? "Bring it back" : "Lay it away"}
        </Button>
        {!used && (
          <Button look="quiet" onClick={() => drop.mutate()} disabled={drop.isPending}>
            Take it off the shelf
          </Button>
        )}
      </div>
      <p aria-live="polite" className="text-soft">
        {replace.data && (replace.data.says || "The score is the new one; every mark stands.")}
      </p>
      {trouble && <Trouble>{trouble.message}</Trouble>}
    </section>
  );
}
