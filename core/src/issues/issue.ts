/**
 * Expected failures and remarks, as data. The core never words them: a code and its
 * parameters travel to the command line or the web, which say it to a person.
 */
export interface Issue {
  /** Stable, dotted, lower case: "wiring.missing-connector". */
  readonly code: string;
  /** Where in the document, as a path of keys and indexes; empty for the whole. */
  readonly path: readonly (string | number)[];
  readonly params: Readonly<Record<string, string | number | readonly string[]>>;
}

export type Result<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly issues: readonly Issue[] };

export function issue(code: string, path: Issue["path"] = [], params: Issue["params"] = {}): Issue {
  return { code, path, params };
}

export const ok = <T>(value: T): Result<T> => ({ ok: true, value });
export const fail = (issues: readonly Issue[]): Result<never> => ({ ok: false, issues });
