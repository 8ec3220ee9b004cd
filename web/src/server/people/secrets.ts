import { randomBytes } from "node:crypto";
import type { Algorithm } from "@node-rs/argon2";
import { hash as argon2, verify as argon2Verify } from "@node-rs/argon2";
import { ZxcvbnFactory } from "@zxcvbn-ts/core";
import { adjacencyGraphs, dictionary } from "@zxcvbn-ts/language-common";

/** OWASP's Password Storage Cheat Sheet, argon2id: 19 MiB, 2 passes, 1 lane (value from memory). */
const COST = { algorithm: 2 as Algorithm.Argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashed = (secret: string): Promise<string> => argon2(secret.normalize("NFKC"), COST);
/** Whether a secret is the one that was hashed; a hash that does not read is of none. */
export const isSecret = (hash: string, secret: string): Promise<boolean> =>
  argon2Verify(hash, secret.normalize("NFKC")).catch(() => false);

/** As OWASP ASVS 4 asks, 2.1.1 and 2.1.2 (value from memory). */
export const PASSWORD_LENGTH = { least: 12, most: 128 } as const;
/** Of 0 to 4: from 3 on it takes more than 10^8 guesses, as the estimator counts. */
const LEAST_SCORE = 3;
let estimator: ZxcvbnFactory | undefined;

/** What is wrong with a new password, as the code of an issue; nothing where it will do. */
export function passwordFault(password: string, ofPerson: readonly string[]): string | undefined {
  if (password.length < PASSWORD_LENGTH.least) return "sign-in.password-short";
  if (password.length > PASSWORD_LENGTH.most) return "sign-in.password-long";
  estimator ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const words = ofPerson.flatMap((name) => [name.replace(/\s/g, ""), ...name.split(/\s+/)]);
  const { score } = estimator.check(password, [...words, "radicula"]);
  return score < LEAST_SCORE ? "sign-in.password-easy" : undefined;
}

export const SIGN_IN_PIN = /^\d{4,8}$/;
/** A PIN of one digit, of digits in a row, or of a year: the first that anybody tries. */
export function isEasyPin(pin: string): boolean {
  const steps = new Set([...pin].slice(1).map((d, i) => Number(d) - Number(pin[i])));
  return (steps.size === 1 && [0, 1, -1].includes([...steps][0] ?? 2)) || /^(?:19|20)\d\d$/.test(pin);
}

/** What a device is known again by. */
export const newDevice = (): string => randomBytes(32).toString("base64url");
