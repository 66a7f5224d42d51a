import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "@tanstack/react-router";
import { type ComponentProps, type FormEvent, useState } from "react";
import { answer, api, queries } from "../../api/client";
import { setAccount } from "../../api/outbox";
import { Button } from "../../parts/Button";
import { Trouble } from "../../parts/Told";

// SignInScreen lets a teacher in, or makes a studio.
export function SignInScreen() {
  const [fresh, setFresh] = useState(false);
  const go = useNavigate();
  const enter = useMutation({
    mutationFn: async (form: Record<string, string>) => {
      const { email = "", password = "", name = "", studio = "" } = form;
      if (fresh) {
        const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
        await answer(api.POST("/api/sign-up", { body: { email, password, name, studio, zone } }));
      } else {
        await answer(api.POST("/api/sign-in", { body: { email, password } }));
      }
      setAccount(email);
    },
    onSuccess: async () => {
      queries.clear();
      await go({ to: "/" });
    },
  });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    if (enter.isPending) return;
    enter.mutate(Object.fromEntries(new FormData(e.currentTarget)) as Record<string, string>);
  };
  return (
    <main className="mx-auto grid min-h-dvh max-w-4xl content-center gap-14 p-8 md:grid-cols-[1.1fr_1fr]">
      <div className="self-center">
        <Rungs />
        <h1 className="mt-6 text-huge leading-tight">Patient Ladder</h1>
        <p className="mt-3 max-w-sm text-large text-soft">
          You say what happened in the lesson. It works out what follows, and says why.
        </p>
      </div>
      <form onSubmit={submit} className="space-y-4 self-center rounded border border-line bg-raised p-6">
        <h2 className="text-head">{fresh ? "Open a studio" : "Sign in"}</h2>
        {fresh && (
          <>
            <Field label="Your name" name="name" autoComplete="name" required />
            <Field label="The studio's name" name="studio" required />
          </>
        )}
        <Field label="Mail address" name="email" type="email" autoComplete="username" required />
        <Field
          label={fresh ? "Password, at least 10 characters" : "Password"}
          name="password"
          type="password"
          autoComplete={fresh ? "new-password" : "current-password"}
          minLength={fresh ? 10 : undefined}
          required
        />
        {enter.error && <Trouble>{enter.error.message}</Trouble>}
        <div className="flex items-center justify-between gap-3">
          <Button look="main" type="submit" disabled={enter.isPending}>
            {fresh ? "Open the studio" : "Sign in"}
          </Button>
          <Button look="quiet" onClick={() => setFresh(!fresh)}>
            {fresh ? "I have an account" : "I am new here"}
          </Button>
        </div>
      </form>
    </main>
  );
}

function Field({ label, ...rest }: ComponentProps<"input"> & { label: string }) {
  return (
    <label className="block font-[580]">
      {label}
      <input
        className="mt-1 block w-full rounded border border-line bg-ground px-3 py-2 font-normal text-ink"
        {...rest}
      />
    </label>
  );
}

// Rungs is the ladder in small: what is secure below the line of now, what
// comes above it.
function Rungs() {
  const widths = [50, 74, 62, 96, 58, 80];
  return (
    <svg viewBox="0 0 120 100" className="w-44" aria-hidden="true">
      {widths.map((w, i) => {
        const y = 8 + i * 15 + (i > 2 ? 8 : 0);
        return (
          <line
            key={w}
            x1={10}
            x2={10 + w}
            y1={y}
            y2={y}
            strokeWidth={3}
            className={i > 2 ? "stroke-keep" : "stroke-ink"}
            opacity={i > 2 ? 1 - 0.25 * (i - 3) : 0.4 + 0.25 * i}
          />
        );
      })}
      <line x1={0} x2={120} y1={50} y2={50} className="stroke-now" strokeWidth={3} />
    </svg>
  );
}
