import { useMutation } from "@tanstack/react-query";
import { Link, useNavigate } from "@tanstack/react-router";
import { answer, api, forgetKept, Problem, queries } from "../../api/client";
import { setAccount } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";
import { Welcome } from "./SignInScreen";

// ConfirmScreen opens the studio that a mail asked to confirm; the address holds what the mail
// brought, behind #. It waits for a touch: programs that look into mail open its links too.
export function ConfirmScreen() {
  const go = useNavigate();
  const confirm = useMutation({
    mutationFn: async () => {
      await answer(api.POST("/api/confirm", { body: { token: location.hash.slice(1) } }));
      if (setAccount((await answer(api.GET("/api/account"))).email)) await forgetKept();
    },
    onSuccess: async () => {
      queries.clear();
      await go({ href: "/" });
    },
  });
  const gone = confirm.error instanceof Problem && confirm.error.status === 410 ? confirm.error.message : "";
  return (
    <Welcome title={say("signin.openStudio")}>
      <div className="space-y-4 self-center rounded border border-line bg-raised p-6">
        <h2 className="text-head">{say("signin.openStudio")}</h2>
        {gone ? (
          <>
            <Trouble>{gone}</Trouble>
            <Link to="/sign-in" className="font-[620] underline underline-offset-4">
              {say("signin.beginAgain")}
            </Link>
          </>
        ) : (
          <>
            <p>{say("signin.addressYoursOneTouchStudio")}</p>
            {confirm.error && <Trouble>{confirm.error.message}</Trouble>}
            <Button look="main" onClick={() => confirm.mutate()} disabled={confirm.isPending}>
              {say("signin.openStudio2")}
            </Button>
          </>
        )}
      </div>
    </Welcome>
  );
}
