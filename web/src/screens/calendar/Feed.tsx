import { useMutation } from "@tanstack/react-query";
import { answer, api } from "../../api/client";
import { Button } from "../../parts/Button";
import { Once } from "../../parts/Once";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";

// Feed gives the lessons to other calendar programs: as a file, or as an address
// that they follow.
export function Feed() {
  const make = useMutation({ mutationFn: () => answer(api.POST("/api/feed")) });
  const address = make.data && location.origin + make.data.path;
  return (
    <section aria-label={say("calendar.otherCalendars")} className="space-y-2 rounded bg-raised p-3">
      <h2>{say("calendar.otherCalendars")}</h2>
      <p>
        <a href="/api/lessons.ics" className="font-[620] underline underline-offset-4">
          {say("calendar.allLessonsFile")}
        </a>
      </p>
      {address ? (
        <Once name="feed" address={address}>
          {say("calendar.whoeverHasSeesNamesTimes")}
        </Once>
      ) : (
        <Button disabled={make.isPending} onClick={() => make.mutate()}>
          {say("calendar.makeAddressFollow")}
        </Button>
      )}
      {make.error && <Trouble>{make.error.message}</Trouble>}
    </section>
  );
}
