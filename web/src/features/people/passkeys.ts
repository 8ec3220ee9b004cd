import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from "@simplewebauthn/browser";
import { z } from "zod";
import { Anything, askAuth, type Asked } from "./askAuth";

const STOPPED = { ok: false, code: "sign-in.passkey-stopped", seconds: 0 } as const;
const BY_NUMBER = { ok: false, code: "sign-in.passkey-by-number", seconds: 0 } as const;
/** Browsers keep passkeys for names only. */
const isNumber = () => /^[\d.]+$|:/.test(location.hostname);
/** Checked by the browser itself, which takes nothing else. */
const Options = <T>() => z.custom<T>((value) => typeof value === "object" && value !== null && "challenge" in value);

/** Signs in with a passkey of this device, or of a key that is put in. */
export async function signInByPasskey(): Promise<Asked<unknown>> {
  if (isNumber()) return BY_NUMBER;
  const options = await askAuth(
    "passkey/generate-authenticate-options",
    undefined,
    Options<PublicKeyCredentialRequestOptionsJSON>(),
  );
  if (!options.ok) return options;
  const { startAuthentication } = await import("@simplewebauthn/browser");
  try {
    const response = await startAuthentication({ optionsJSON: options.body });
    return await askAuth("passkey/verify-authentication", { response }, Anything);
  } catch {
    return STOPPED;
  }
}
/** Makes a passkey for who is signed in. */
export async function addPasskey(name: string): Promise<Asked<unknown>> {
  if (isNumber()) return BY_NUMBER;
  const options = await askAuth(
    "passkey/generate-register-options",
    undefined,
    Options<PublicKeyCredentialCreationOptionsJSON>(),
  );
  if (!options.ok) return options;
  const { startRegistration } = await import("@simplewebauthn/browser");
  try {
    const response = await startRegistration({ optionsJSON: options.body });
    return await askAuth("passkey/verify-registration", { response, name }, Anything);
  } catch {
    return STOPPED;
  }
}
