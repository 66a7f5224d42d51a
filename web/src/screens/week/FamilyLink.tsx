import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { renderSVG } from "uqr";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Once } from "../../parts/Once";
import { Trouble } from "../../parts/Told";
import { longDay, plural } from "../../parts/words";

type Props = { student: string; firstName: string; open: number; own: boolean };

// FamilyLink opens this week to the family, or to a student who is old enough, and closes
// it again.
export function FamilyLink({ student, firstName, open, own }: Props) {
  const [copied, setCopied] = useState(false);
  const of = { params: { path: { student }, query: { own } } };
  const after = { onSuccess: () => queries.invalidateQueries({ queryKey: ["student", student, "week"] }) };
  const make = useMutation({
    mutationFn: () => answer(api.POST("/api/students/{student}/links", of)),
    ...after,
  });
  const end = useMutation({
    mutationFn: () => answer(api.DELETE("/api/students/{student}/links", of)),
    onSuccess: () => {
      make.reset();
      return after.onSuccess();
    },
  });
  const address = make.data && location.origin + make.data.path;
  return (
    <section className="space-y-2 border-t border-line pt-3">
      <h2>{own ? `On ${firstName}'s own phone` : "On the family's phone"}</h2>
      {address ? (
        <>
          <Once name={own ? "own-link" : "family-link"} address={address}>
            It opens {firstName}'s week and nothing else, until {longDay(make.data?.lastDay ?? "")}.
            {own && " The family's days and treats are not on it."}
          </Once>
          <Button
            onClick={() => {
              void navigator.clipboard.writeText(address).then(() => setCopied(true));
            }}
          >
            {copied ? "Copied" : "Copy the link"}
          </Button>
          <img
            className="w-40 rounded bg-white p-2"
            alt={`The link to ${firstName}'s week, for a phone's camera`}
            src={`data:image/svg+xml,${encodeURIComponent(renderSVG(address, { border: 1 }))}`}
          />
        </>
      ) : (
        <Button
          disabled={make.isPending}
          onClick={() => {
            setCopied(false);
            make.mutate();
          }}
        >
          {own ? `Make a link for ${firstName}` : "Make a link"}
        </Button>
      )}
      {open > 0 && (
        <p className="text-soft">
          {plural(open, "link")} open now.{" "}
          <button
            type="button"
            className="min-h-6 font-[620] text-ink underline underline-offset-4"
            disabled={end.isPending}
            onClick={() => end.mutate()}
          >
            {open === 1 ? "End it" : "End them all"}
          </button>
        </p>
      )}
      {(make.error ?? end.error) && <Trouble>{(make.error ?? end.error)?.message}</Trouble>}
    </section>
  );
}
