import { useMutation } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Button } from "../../parts/Button";
import { Once } from "../../parts/Once";
import { Trouble } from "../../parts/Told";

// Feed gives the lessons to other calendar programs: as a file, or as an address
// that they follow.
export function Feed() {
  const make = useMutation({ mutationFn: () => answer(api.POST("/api/feed")) });
  const address = make.data && location.origin + make.data.path;
  return (
    <section aria-label="For other calendars" className="space-y-2 rounded bg-raised p-3">
      <h2>For other calendars</h2>
      <p>
        <a href="/api/lessons.ics" className="font-[620] underline underline-offset-4">
          All lessons as a file
        </a>
      </p>
      {address ? (
        <Once name="feed" address={address}>
          Whoever has it sees names and times; an earlier one has ended.
        </Once>
      ) : (
        <Button disabled={make.isPending} onClick={() => make.mutate()}>
          Make an address to follow
        </Button>
      )}
      {make.error && <Trouble>{make.error.message}</Trouble>}
    </section>
  );
}
