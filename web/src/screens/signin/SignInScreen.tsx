import { useMutation } from "@tanstack/react-query";
import { useNavigate, useSearch } from "@tanstack/react-router";
import { type FormEvent, type ReactNode, useState } from "react";
import { answer, api, forgetKept, Problem, queries } from "../../api/client";
import { setAccount } from "../../api/outbox";
import { passkeysWork, signInByPasskey } from "../../api/passkeys";
import { Button } from "../../parts/Button";
import { Field } from "../../parts/Field";
import { Trouble } from "../../parts/Told";
import { say } from "../../words/say";

// SignInScreen lets a teacher in, or makes a studio; and leads back to where somebody wanted to
// go.
export function SignInScreen() {
  const { to, invitation } = useSearch({ from: "/sign-in" });
  const [wants, setWants] = useState<"in" | "new" | "password">(invitation ? "new" : "in");
  const fresh = wants === "new";
  const go = useNavigate();
  const inside = async () => {
    queries.clear();
    await go({ href: to ?? "/" });
  };
  const enter = useMutation({
    mutationFn: async (form: Record<string, string>) => {
      const { email = "", password = "", name = "", studio = "", code = "" } = form;
      if (fresh) {
        const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
        const asked = api.POST("/api/sign-up", {
          body: { email, password, name, studio, zone, ...(invitation && { invitation }) },
        });
        await answer(asked);
        if ((await asked).response.status === 202) return email;
      } else {
        await answer(api.POST("/api/sign-in", { body: { email, password, ...(code && { code }) } }));
      }
      if (setAccount(email)) await forgetKept();
      return null;
    },
    onSuccess: (toConfirm) => toConfirm ?? inside(),
  });
  const passkey = useMutation({
    mutationFn: async () => {
      await signInByPasskey();
      if (setAccount((await answer(api.GET("/api/account"))).email)) await forgetKept();
    },
    onSuccess: inside,
  });
  const asksCode = enter.error instanceof Problem && (enter.error.status === 428 || /code/.test(enter.error.message));
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    if (enter.isPending) return;
    enter.mutate(Object.fromEntries(new FormData(e.currentTarget)) as Record<string, string>);
  };
  return (
    <Welcome title={fresh ? say("signin.openStudio") : say("signin.signIn")}>
      {wants === "password" ? (
        <Forgot back={() => setWants("in")} />
      ) : enter.data ? (
        <div className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <h2 className="text-head">{say("signin.lookIntoMail")}</h2>
          <p role="status">{say("signin.mailItsWayOpenIts", { n: enter.data })}</p>
        </div>
      ) : (
        <form onSubmit={submit} className="space-y-4 self-center rounded border border-line bg-raised p-6">
          <h2 className="text-head">{fresh ? say("signin.openStudio") : say("signin.signIn")}</h2>
          {fresh && (
            <>
              <Field label={say("signin.yourName")} name="name" autoComplete="name" required />
              <Field label={say("signin.studiosName")} name="studio" required />
            </>
          )}
          <Field label={say("signin.mailAddress")} name="email" type="email" autoComplete="username" required />
          <Field
            label={fresh ? say("signin.passwordLeast10Characters") : say("signin.password")}
            name="password"
            type="password"
            autoComplete={fresh ? "new-password" : "current-password"}
            minLength={fresh ? 10 : undefined}
            required
          />
          {asksCode && (
            <Field
              label={say("signin.codeApp")}
              name="code"
              inputMode="numeric"
              autoComplete="one-time-code"
              required
            />
          )}
          {enter.error && <Trouble>{enter.error.message}</Trouble>}
          {passkey.error && <Trouble>{passkey.error.message}</Trouble>}
          <div className="flex items-center justify-between gap-3">
            <Button look="main" type="submit" disabled={enter.isPending}>
              {fresh ? say("signin.openStudio2") : say("signin.signIn")}
            </Button>
            <Button look="quiet" onClick={() => setWants(fresh ? "in" : "new")}>
              {fresh ? say("signin.iHaveAccount") : say("signin.iAmNewHere")}
            </Button>
          </div>
          {!fresh && (
            <div className="flex flex-wrap items-center justify-between gap-3 border-t border-line pt-3">
              {passkeysWork() && (
                <Button onClick={() => passkey.mutate()} disabled={passkey.isPending}>
                  {say("signin.signPasskey")}
                </Button>
              )}
              <Button look="quiet" onClick={() => setWants("password")}>
                {say("signin.iForgotMyPassword")}
              </Button>
            </div>
          )}
        </form>
      )}
    </Welcome>
  );
}

// Forgot asks for a mail with a link.
function Forgot({ back }: { back: () => void }) {
  const ask = useMutation({ mutationFn: (email: string) => answer(api.POST("/api/forgot", { body: { email } })) });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    ask.mutate(String(new FormData(e.currentTarget).get("email")));
  };
  return (
    <form onSubmit={submit} className="space-y-4 self-center rounded border border-line bg-raised p-6">
      <h2 className="text-head">{say("signin.anotherPassword")}</h2>
      {ask.isSuccess ? (
        <p role="status">{say("signin.ifAddressHasAccountMail")}</p>
      ) : (
        <Field label={say("signin.mailAddress")} name="email" type="email" autoComplete="username" required />
      )}
      {ask.error && <Trouble>{ask.error.message}</Trouble>}
      <div className="flex items-center justify-between gap-3">
        {!ask.isSuccess && (
          <Button look="main" type="submit" disabled={ask.isPending}>
            {say("signin.sendMeLink")}
          </Button>
        )}
        <Button look="quiet" onClick={back}>
          {say("signin.back")}
        </Button>
      </div>
    </form>
  );
}

// Welcome is what stands beside a form for who is not signed in.
export function Welcome({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto grid min-h-dvh max-w-4xl content-center gap-14 p-8 md:grid-cols-[1.1fr_1fr]">
      <title>{`${title} · Patient Ladder`}</title>
      <div className="self-center">
        <Rungs />
        <h1 className="mt-6 text-huge leading-tight">{say("signin.patientLadder")}</h1>
        <p className="mt-3 max-w-sm text-large text-soft">{say("signin.sayWhatHappenedLessonWorks")}</p>
      </div>
      {children}
    </main>
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
