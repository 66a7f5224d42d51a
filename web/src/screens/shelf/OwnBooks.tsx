import { useMutation } from "@tanstack/react-query";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

// OwnBooks puts the books that come with the app on an empty shelf.
export function OwnBooks() {
  const put = useMutation({
    mutationFn: () => answer(api.POST("/api/shelf/own-books")),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  return (
    <div className="space-y-2">
      <p className="font-normal text-soft">
        The shelf is empty. Begin with the books that come with the app (piano, cello and guitar, with all their notes),
        and bring in your own beside them.
      </p>
      {put.error && <Trouble>{put.error.message}</Trouble>}
      <Button look="main" disabled={put.isPending} onClick={() => put.mutate()}>
        {put.isPending ? "Putting them up" : "Put them on the shelf"}
      </Button>
    </div>
  );
}
