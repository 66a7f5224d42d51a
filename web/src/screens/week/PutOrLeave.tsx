import { Button } from "../../parts/Button";

// PutOrLeave ends a form.
export function PutOrLeave({ end }: { end: () => void }) {
  return (
    <div className="flex gap-2">
      <Button type="submit" look="main">
        Put it on the sheet
      </Button>
      <Button type="button" onClick={end}>
        Leave it
      </Button>
    </div>
  );
}
