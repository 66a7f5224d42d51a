import { say } from "../words/say";
import { answer, api } from "./client";

// The browser's half of passkeys: options come from the server as the Web Authentication API
// takes them, and what the browser makes goes back as it is.

type Options = { options: unknown };

const plain = (credential: Credential | null) => {
  if (!credential) throw new Error(say("parts.noPasskeyMade"));
  return JSON.parse(JSON.stringify((credential as PublicKeyCredential).toJSON()));
};

export const passkeysWork = () =>
  typeof PublicKeyCredential !== "undefined" && "parseCreationOptionsFromJSON" in PublicKeyCredential;

// makePasskey makes one on this device and keeps it.
export async function makePasskey(password: string, name: string) {
  const begun = await answer(api.POST("/api/account/passkeys", { body: { password } }));
  const publicKey = PublicKeyCredential.parseCreationOptionsFromJSON((begun as Options).options as never);
  const made = plain(await navigator.credentials.create({ publicKey }).catch(stopped));
  await answer(api.PUT("/api/account/passkeys", { params: { query: { name } }, body: made }));
}

// usePasskey signs in by one.
export async function signInByPasskey() {
  const begun = await answer(api.POST("/api/passkey"));
  const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON((begun as Options).options as never);
  const shown = plain(await navigator.credentials.get({ publicKey }).catch(stopped));
  await answer(api.PUT("/api/passkey", { body: shown }));
}

function stopped(): never {
  throw new Error(say("parts.noPasskeyUsed"));
}
