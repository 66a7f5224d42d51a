import { Button } from "../../parts/Button";
import { say } from "../../words/say";

// PutOrLeave ends a form.
export function PutOrLeave({ end }: { end: () => void }) {
  return (
    <div className="flex gap-2">
      <Button type="submit" look="main">
        {say("week.putSheet")}
      </Button>
      <Button type="button" onClick={end}>
        {say("week.leaveIt")}
      </Button>
    </div>
  );
}
