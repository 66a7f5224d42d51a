import { useMutation } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import type { FormEvent } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../parts/Button";
import { Field } from "../../parts/Field";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";
import { Welcome } from "./SignInScreen";

// ResetScreen sets another password; the address holds what the mail brought, behind # so
// that no server is told it before.
export function ResetScreen() {
  const reset = useMutation({
    mutationFn: (password: string) =>
      answer(api.POST("/api/reset", { body: { token: location.hash.slice(1), password } })),
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    reset.mutate(String(new FormData(e.currentTarget).get("password")));
  };
  return (
    <Welcome title={say("signin.anotherPassword")}>
      {reset.isSuccess ? (
        <div className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <p role="status">{say("signin.passwordSetEverySignBefore")}</p>
          <Link to="/sign-in" className="font-[620] underline underline-offset-4">
            {say("signin.signIn")}
          </Link>
        </div>
      ) : (
        <form onSubmit={submit} className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <h2 className="text-head">{say("signin.anotherPassword")}</h2>
          <Field
            label={say("signin.passwordLeast10Characters")}
            name="password"
            type="password"
            autoComplete="new-password"
            minLength={10}
            required
          />
          {reset.error && <Trouble>{reset.error.message}</Trouble>}
          <Button look="main" type="submit" disabled={reset.isPending}>
            {say("signin.setIt")}
          </Button>
        </form>
      )}
    </Welcome>
  );
}
