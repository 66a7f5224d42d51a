import { useMutation } from "@tanstack/react-query";
import { Link } from "@tanstack/react-router";
import type { FormEvent } from "react";
import { answer, api } from "../../api/client";
import { Button } from "../../parts/Button";
import { Field } from "../../parts/Field";
import { Trouble } from "../../parts/Told";
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
    <Welcome title="Another password">
      {reset.isSuccess ? (
        <div className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <p role="status">The password is set, and every sign-in before has ended.</p>
          <Link to="/sign-in" className="font-[620] underline underline-offset-4">
            Sign in
          </Link>
        </div>
      ) : (
        <form onSubmit={submit} className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <h2 className="text-head">Another password</h2>
          <Field
            label="Password, at least 10 characters"
            name="password"
            type="password"
            autoComplete="new-password"
            minLength={10}
            required
          />
          {reset.error && <Trouble>{reset.error.message}</Trouble>}
          <Button look="main" type="submit" disabled={reset.isPending}>
            Set it
          </Button>
        </form>
      )}
    </Welcome>
  );
}
