import type { Wiring } from "@radicula/core";

/** What the first codes of any job on a machine will need, by the key it is kept under, where it is more than was kept. */
export function predict(task: {
  readonly wiring: Wiring;
  readonly kept: Readonly<Record<string, Uint8Array>>;
}): Record<string, Uint8Array>;
