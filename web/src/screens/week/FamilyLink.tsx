import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { renderSVG } from "uqr";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Once } from "../../parts/Once";
import { Trouble } from "../../parts/Told";
import { longDay } from "../../parts/words";
import { say } from "../../words/say";

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
      <h2>{own ? say("week.sOwnPhone", { firstName }) : say("week.familysPhone")}</h2>
      {address ? (
        <>
          <Once name={own ? "own-link" : "family-link"} address={address}>
            {[
              say("week.opensSWeekNothingElse", { firstName, day: longDay(make.data?.lastDay ?? "") }),
              own ? say("week.familysDaysTreatsAreNot") : "",
            ].join(" ")}
          </Once>
          <Button
            onClick={() => {
              void navigator.clipboard.writeText(address).then(() => setCopied(true));
            }}
          >
            {copied ? say("week.copied") : say("week.copyLink")}
          </Button>
          <img
            className="w-40 rounded bg-white p-2"
            alt={say("week.linkSWeekPhonesCamera", { firstName })}
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
          {own ? say("week.makeLink", { firstName }) : say("week.makeLink2")}
        </Button>
      )}
      {open > 0 && (
        <p className="text-soft">
          {say("week.linksOpenNow", { open })}{" "}
          <button
            type="button"
            className="min-h-6 font-[620] text-ink underline underline-offset-4"
            disabled={end.isPending}
            onClick={() => end.mutate()}
          >
            {open === 1 ? say("week.endIt") : say("week.endThemAll")}
          </button>
        </p>
      )}
      {(make.error ?? end.error) && <Trouble>{(make.error ?? end.error)?.message}</Trouble>}
    </section>
  );
}
