import { useMutation, useQuery } from "@tanstack/react-query";
import { type FormEvent, type ReactNode, useState } from "react";
import { renderSVG } from "uqr";
import { answer, api, queries, type Schemas } from "../../api/client";
import { setAccount } from "../../api/outbox";
import { makePasskey, passkeysWork } from "../../api/passkeys";
import { accountView } from "../../api/views";
import { Button } from "../../parts/Button";
import { Field } from "../../parts/Field";
import { LanguageField } from "../../parts/LanguageField";
import { StudioPlaces } from "../../parts/StudioPlaces";
import { Shown, Trouble } from "../../parts/Told";
import { Renewed, useKeep } from "../../parts/useKeep";
import { begins, say } from "../../words/say";
import { Whole } from "./Whole";

type View = Schemas["AccountView"];

// AccountScreen: the teacher's name, mail and password, what else opens the account, and who
// is signed in.
export function AccountScreen() {
  const query = useQuery(accountView);
  return (
    <main className="flex-1 px-4 pt-3 pb-6">
      <StudioPlaces />
      <h1 className="my-3 text-head">{say("account.account")}</h1>
      <Shown query={query}>
        {(view) => (
          <div className="grid items-start gap-4 lg:grid-cols-2">
            <div className="space-y-4">
              <Renewed>{(done, kept) => <Names view={view} done={done} kept={kept} />}</Renewed>
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
            {say("account.saved")}
          </span>
        )}
      </div>
    </form>
  );
}

const Own = ({ label = say("account.yourPassword") }) => (
  <Field required label={label} name="password" type="password" autoComplete="current-password" />
);

function Names({ view, done, kept }: { view: View; done: () => void; kept: boolean }) {
  const [was] = useState({ name: view.name, studio: view.studio, zone: view.zone, language: view.language });
  const save = useKeep<typeof was>(
    "names",
    async (body) => {
      await answer(api.PUT("/api/account", { body }));
      begins(body.now.language ?? "");
    },
    done,
  );
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name));
    save.keep({ name: text("name"), studio: text("studio"), zone: text("zone"), language: text("language") }, was);
  };
  return (
    <form onSubmit={submit} aria-label={say("account.names")} className="space-y-2 rounded bg-raised p-4">
      <h2>{say("account.names")}</h2>
      <Field required label={say("account.yourName")} name="name" defaultValue={was.name} maxLength={200} />
      <Field required label={say("account.studiosName")} name="studio" defaultValue={was.studio} maxLength={200} />
      <Field required label={say("account.timeZone")} name="zone" defaultValue={was.zone} list="zones" />
      <datalist id="zones">
        {Intl.supportedValuesOf("timeZone").map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
      <LanguageField label={say("account.languageScreens")} value={was.language} />
      {save.asked}
      <div className="flex items-center gap-3">
        <Button type="submit" disabled={save.busy}>
          {say("account.save")}
        </Button>
        {kept && (
          <span role="status" className="text-keep">
            {say("account.saved")}
          </span>
        )}
      </div>
    </form>
  );
}

function Mail({ view }: { view: View }) {
  return (
    <Form
      title={say("account.mailAddress")}
      does={say("account.changeIt")}
      send={async ({ email = "", password = "" }) => {
        await answer(api.PUT("/api/account/email", { body: { email, password } }));
        setAccount(email);
      }}
    >
      <Field
        required
        label={say("account.signWith")}
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
      title={say("account.password")}
      does={say("account.changeIt")}
      send={({ password = "", next = "" }) =>
        answer(api.PUT("/api/account/password", { body: { old: password, password: next } }))
      }
    >
      <Own label={say("account.oneHave")} />
      <Field
        required
        label={say("account.anotherLeast10Characters")}
        name="next"
        type="password"
        autoComplete="new-password"
        minLength={10}
      />
      <p className="text-soft">{say("account.everyOtherSignEndsWith")}</p>
    </Form>
  );
}

// App asks for a code of an app beside the password.
function App({ view }: { view: View }) {
  const [codes, setCodes] = useState<string[]>();
  const begin = useMutation({ mutationFn: () => answer(api.POST("/api/account/app", { body: {} })) });
  if (codes)
    return (
      <section
        aria-label={say("account.recoveryCodes")}
        className="space-y-2 rounded border-l-4 border-now bg-raised p-4"
      >
        <h2>{say("account.recoveryCodes")}</h2>
        <p>{say("account.shownOncePrintThemWrite")}</p>
        <ul className="columns-2 font-[580]">
          {codes.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
        <Button onClick={() => setCodes(undefined)}>{say("account.iHaveThem")}</Button>
      </section>
    );
  if (view.app)
    return (
      <Form
        title={say("account.codeBesidePassword")}
        does={say("account.askNoCodeAnyMore")}
        send={({ password = "" }) => answer(api.DELETE("/api/account/app", { body: { password } }))}
      >
        <p className="text-soft">{say("account.codeAppAskedRecoveryPlural", { recovery: view.recovery })}</p>
        <Own />
      </Form>
    );
  if (begin.data)
    return (
      <Form
        title={say("account.codeBesidePassword")}
        does={say("account.askCodesFromNow")}
        send={async ({ code = "", password = "" }) => {
          const secret = begin.data.secret;
          const told = await answer(api.PUT("/api/account/app", { body: { secret, code, password } }));
          begin.reset();
          setCodes(told.codes);
        }}
      >
        <p>{say("account.letAppReadType", { list: begin.data.secret.match(/.{4}/g)?.join(" ") })}</p>
        <img
          alt={say("account.secretAppShowsCodes")}
          className="w-44 bg-white p-2"
          src={`data:image/svg+xml,${encodeURIComponent(renderSVG(begin.data.uri))}`}
        />
        <Field
          required
          label={say("account.codeShowsNow")}
          name="code"
          inputMode="numeric"
          autoComplete="one-time-code"
        />
        <Own />
      </Form>
    );
  return (
    <section aria-label={say("account.codeBesidePassword")} className="rounded bg-raised p-4">
      <h2>{say("account.codeBesidePassword")}</h2>
      <p className="my-1 text-soft">{say("account.appPhoneShowsSixDigits")}</p>
      {begin.error && <Trouble>{begin.error.message}</Trouble>}
      <Button onClick={() => begin.mutate()}>{say("account.setUp")}</Button>
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
        title={say("account.passkeys")}
        does={say("account.makePasskeyDevice")}
        send={({ password = "", name = "" }) => makePasskey(password, name)}
      >
        <p className="text-soft">{say("account.fingerprintFaceDevicesOwnCode")}</p>
        {view.passkeys.map((k) => (
          <p key={k.id} className="flex items-center gap-3">
            <span className="flex-1">{say("account.since", { name: k.name, when: when(k.made) })}</span>
            <Button onClick={() => drop.mutate(k.id)}>{say("account.dropIt")}</Button>
          </p>
        ))}
        {drop.error && <Trouble>{drop.error.message}</Trouble>}
        {passkeysWork() ? (
          <>
            <Field
              required
              label={say("account.whatCall")}
              name="name"
              maxLength={60}
              placeholder={say("account.studiosLaptop")}
            />
            <Own />
          </>
        ) : (
          <p>{say("account.browserMakesNoneHere")}</p>
        )}
      </Form>
    </div>
  );
}

const when = (at: string) =>
  new Intl.DateTimeFormat(document.documentElement.lang, {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  }).format(new Date(at));

// browser names what a browser calls itself.
function browser(agent: string) {
  const name = /Edg|OPR|Firefox|Chrome|Safari/.exec(agent)?.[0] ?? say("account.aBrowser");
  const on = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(agent)?.[0];
  const called = { Edg: say("account.edge"), OPR: say("account.opera") }[name] ?? name;
  return on ? say("account.browserOn", { browser: called, on }) : called;
}

function Devices({ view }: { view: View }) {
  const end = useMutation({
    mutationFn: (device?: string) =>
      answer(api.DELETE("/api/account/devices", { params: { query: device ? { device } : {} } })),
    onSuccess: fresh,
  });
  const others = view.devices.some((d) => !d.ended && !d.here);
  return (
    <section aria-label={say("account.signIns")} className="rounded bg-raised p-4">
      <h2 className="mb-1">{say("account.signIns")}</h2>
      <ul className="divide-y divide-faint">
        {view.devices.map((d) => (
          <li key={d.id} className={`flex items-center gap-3 py-1.5 ${d.ended ? "text-soft" : ""}`}>
            <span className="flex-1">
              {browser(d.agent)}, {when(d.made)}
              {d.ended
                ? say("account.ended")
                : d.here
                  ? say("account.thisOne")
                  : say("account.lastSeen", { when: when(d.seen) })}
            </span>
            {!d.ended && !d.here && <Button onClick={() => end.mutate(d.id)}>{say("account.endIt")}</Button>}
          </li>
        ))}
      </ul>
      {end.error && <Trouble>{end.error.message}</Trouble>}
      {others && (
        <Button className="mt-2" onClick={() => end.mutate(undefined)}>
          {say("account.endAllOthers")}
        </Button>
      )}
    </section>
  );
}
