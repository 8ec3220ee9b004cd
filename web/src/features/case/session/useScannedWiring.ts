"use client";
import { withScannedCodes, type Entry, type Wiring } from "@radicula/core";
import { useMemo } from "react";

/** The wiring with the codes that scans added; the same object until one more is added. */
export function useScannedWiring(wiring: Wiring, entries: readonly Entry[]): Wiring {
  const codes = withScannedCodes(wiring, entries).codes.slice(wiring.codes.length);
  const key = JSON.stringify(codes);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- codes are the same while what is said of them is
  return useMemo(() => (codes.length ? { ...wiring, codes: [...wiring.codes, ...codes] } : wiring), [wiring, key]);
}
