import { useMutation } from "@tanstack/react-query";
import { answer, api, queries } from "../../api/client";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";

// OwnBooks puts the books that come with the app on an empty shelf.
export function OwnBooks() {
  const put = useMutation({
    mutationFn: () => answer(api.POST("/api/shelf/own-books")),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["shelf"] }),
  });
  return (
    <div className="space-y-2">
      <p className="font-normal text-soft">{say("shelf.shelfEmptyBeginWithBooks")}</p>
      {put.error && <Trouble>{put.error.message}</Trouble>}
      <Button look="main" disabled={put.isPending} onClick={() => put.mutate()}>
        {put.isPending ? say("shelf.puttingThemUp") : say("shelf.putThemShelf")}
      </Button>
    </div>
  );
}
