import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { renderSVG } from "uqr";
import { answer, api, queries, type Schemas } from "../../api/client";
import { setAccount } from "../../api/outbox";
import { makePasskey, passkeysWork } from "../../api/passkeys";
import { accountView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Field } from "../../parts/Field";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { plural } from "../../parts/words";
import { Whole } from "./Whole";

type View = Schemas["AccountView"];

// AccountScreen: the teacher's name, mail and password, what else opens the account, and who
// is signed in.
export function AccountScreen() {
  const query = useQuery(accountView);
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <h1 className="my-3 text-head">Account</h1>
      <Shown query={query}>
        {(view) => (
          <div className="grid items-start gap-4 lg:grid-cols-2">
            <div className="space-y-4">
              <Names view={view} />
              <Mail view={view} />
              <Password />
              <Whole studio={view.studio} />
            </div>
            <div className="space-y-4">
              <App view={view} />
              <Passkeys view={view} />
              <Devices view={view} />
            </div>
          </div>
        )}
      </Shown>
    </main>
  );
}

const fresh = () => queries.invalidateQueries();

// A Form sends its fields, and says that they were kept or what is wrong with them.
function Form(p: {
  title: string;
  does: string;
  send: (fields: Record<string, string>) => Promise<unknown>;
  children?: ReactNode;
}) {
  const save = useMutation({ mutationFn: p.send, onSuccess: fresh });
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    save.mutate(Object.fromEntries(new FormData(form)) as Record<string, string>, {
      onSuccess: () => {
        for (const secret of form.querySelectorAll<HTMLInputElement>("[type=password],[name=code]")) secret.value = "";
      },
    });
  };
  return (
    <form onSubmit={submit} aria-label={p.title} className="space-y-2 rounded bg-raised p-4">
      <h2>{p.title}</h2>
      {p.children}
      {save.error && <Trouble>{save.error.message}</Trouble>}
      <div className="flex items-center gap-3">
        <Button type="submit" disabled={save.isPending}>
          {p.does}
        </Button>
        {save.isSuccess && (
          <span role="status" className="text-keep">
            Kept.
          </span>
        )}
      </div>
    </form>
  );
}

const Own = ({ label = "Your password" }) => (
  <Field required label={label} name="password" type="password" autoComplete="current-password" />
);

function Names({ view }: { view: View }) {
  return (
    <Form
      title="Names"
      does="Keep"
      send={({ name = "", studio = "", zone = "" }) =>
        answer(api.PUT("/api/account", { body: { name, studio, zone } }))
      }
    >
      <Field required label="Your name" name="name" defaultValue={view.name} maxLength={200} />
      <Field required label="The studio's name" name="studio" defaultValue={view.studio} maxLength={200} />
      <Field required label="Time zone" name="zone" defaultValue={view.zone} list="zones" />
      <datalist id="zones">
        {Intl.supportedValuesOf("timeZone").map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
    </Form>
  );
}

function Mail({ view }: { view: View }) {
  return (
    <Form
      title="Mail address"
      does="Change it"
      send={async ({ email = "", password = "" }) => {
        await answer(api.PUT("/api/account/email", { body: { email, password } }));
        setAccount(email);
      }}
    >
      <Field
        required
        label="You sign in with"
        name="email"
        type="email"
        autoComplete="username"
        defaultValue={view.email}
      />
      <Own />
    </Form>
  );
}

function Password() {
  return (
    <Form
      title="Password"
      does="Change it"
      send={({ password = "", next = "" }) =>
        answer(api.PUT("/api/account/password", { body: { old: password, password: next } }))
      }
    >
      <Own label="The one you have" />
      <Field
        required
        label="Another, at least 10 characters"
        name="next"
        type="password"
        autoComplete="new-password"
        minLength={10}
      />
      <p className="text-soft">Every other sign-in ends with it.</p>
    </Form>
  );
}

// App asks for a code of an app beside the password.
function App({ view }: { view: View }) {
  const [codes, setCodes] = useState<string[]>();
  const begin = useMutation({ mutationFn: () => answer(api.POST("/api/account/app", { body: {} })) });
  if (codes)
    return (
      <section aria-label="Recovery codes" className="space-y-2 rounded border-l-4 border-now bg-raised p-4">
        <h2>Recovery codes</h2>
        <p>Shown this once. Print them or write them down: each opens the account once, on the day the app is lost.</p>
        <ul className="columns-2 font-[580]">
          {codes.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
        <Button onClick={() => setCodes(undefined)}>I have them</Button>
      </section>
    );
  if (view.app)
    return (
      <Form
        title="A code beside the password"
        does="Ask for no code any more"
        send={({ password = "" }) => answer(api.DELETE("/api/account/app", { body: { password } }))}
      >
        <p className="text-soft">A code of your app is asked for. {plural(view.recovery, "recovery code")} left.</p>
        <Own />
      </Form>
    );
  if (begin.data)
    return (
      <Form
        title="A code beside the password"
        does="Ask for codes from now on"
        send={async ({ code = "", password = "" }) => {
          const secret = begin.data.secret;
          const told = await answer(api.PUT("/api/account/app", { body: { secret, code, password } }));
          begin.reset();
          setCodes(told.codes);
        }}
      >
        <p>Let your app read this, or type in {begin.data.secret.match(/.{4}/g)?.join(" ")}.</p>
        <img
          alt="The secret for an app that shows codes"
          className="w-44 bg-white p-2"
          src={`data:image/svg+xml,${encodeURIComponent(renderSVG(begin.data.uri))}`}
        />
        <Field
          required
          label="The code that it shows now"
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
        />
        <Own />
      </Form>
    );
  return (
    <section aria-label="A code beside the password" className="rounded bg-raised p-4">
      <h2>A code beside the password</h2>
      <p className="my-1 text-soft">An app on your phone shows six digits, another every half minute.</p>
      {begin.error && <Trouble>{begin.error.message}</Trouble>}
      <Button onClick={() => begin.mutate()}>Set it up</Button>
    </section>
  );
}

function Passkeys({ view }: { view: View }) {
  const drop = useMutation({
    mutationFn: (passkey: string) =>
      answer(api.DELETE("/api/account/passkeys/{passkey}", { params: { path: { passkey } } })),
    onSuccess: fresh,
  });
  return (
    <div className="rounded bg-raised">
      <Form
        title="Passkeys"
        does="Make a passkey on this device"
        send={({ password = "", name = "" }) => makePasskey(password, name)}
      >
        <p className="text-soft">A fingerprint, a face or the device's own code instead of password and code.</p>
        {view.passkeys.map((k) => (
          <p key={k.id} className="flex items-center gap-3">
            <span className="flex-1">
              {k.name}, since {when(k.made)}
            </span>
            <Button onClick={() => drop.mutate(k.id)}>Drop it</Button>
          </p>
        ))}
        {drop.error && <Trouble>{drop.error.message}</Trouble>}
        {passkeysWork() ? (
          <>
            <Field required label="What to call it" name="name" maxLength={60} placeholder="the studio's laptop" />
            <Own />
          </>
        ) : (
          <p>This browser makes none here.</p>
        )}
      </Form>
    </div>
  );
}

const when = (at: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" }).format(
    new Date(at),
  );

// browser names what a browser calls itself.
function browser(agent: string) {
  const name = /Edg|OPR|Firefox|Chrome|Safari/.exec(agent)?.[0] ?? "A browser";
  const on = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(agent)?.[0];
  return [{ Edg: "Edge", OPR: "Opera" }[name] ?? name, on].filter(Boolean).join(" on ");
}

function Devices({ view }: { view: View }) {
  const end = useMutation({
    mutationFn: (device?: string) =>
      answer(api.DELETE("/api/account/devices", { params: { query: device ? { device } : {} } })),
    onSuccess: fresh,
  });
  const others = view.devices.some((d) => !d.ended && !d.here);
  return (
    <section aria-label="Sign-ins" className="rounded bg-raised p-4">
      <h2 className="mb-1">Sign-ins</h2>
      <ul className="divide-y divide-faint">
        {view.devices.map((d) => (
          <li key={d.id} className={`flex items-center gap-3 py-1.5 ${d.ended ? "text-soft" : ""}`}>
            <span className="flex-1">
              {browser(d.agent)}, {when(d.made)}
              {d.ended ? ", ended" : d.here ? ", this one" : `, last seen ${when(d.seen)}`}
            </span>
            {!d.ended && !d.here && <Button onClick={() => end.mutate(d.id)}>End it</Button>}
          </li>
        ))}
      </ul>
      {end.error && <Trouble>{end.error.message}</Trouble>}
      {others && (
        <Button className="mt-2" onClick={() => end.mutate(undefined)}>
          End all others
        </Button>
      )}
    </section>
  );
}
