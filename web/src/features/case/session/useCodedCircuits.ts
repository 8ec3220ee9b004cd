"use client";
import { toldCodes, sharedMatrix, subjectsOf, type Folded, type SharedMatrix, type Wiring } from "@radicula/core";
import { useMemo } from "react";

type CodeEntry = Folded["codes"][number]["entry"];
export interface CodedPart extends Pick<CodeEntry, "code" | "module" | "status"> {
  /** the parts it is about, as far as the wiring knows */
  readonly about: readonly string[];
}

/** The codes that are set, what they are about, and what that shares. */
export interface CodedCircuits {
  readonly set: readonly CodeEntry[];
  readonly matrix: SharedMatrix;
  /**
   * codes of which nobody knows which part they name: without one, and without a set condition that says what it
   * watches
   */
  readonly unnamed: readonly CodedPart[];
}

export function useCodedCircuits(folded: Folded, wiring: Wiring): CodedCircuits {
  return useMemo(() => {
    const set = toldCodes(folded);
    const parts = set.map(({ code, module, status }): CodedPart => ({
      code,
      module,
      status,
      about: subjectsOf(wiring, module, code),
    }));
    const hasCondition = (p: CodedPart) =>
      wiring.codes.some((c) => c.module === p.module && c.id === p.code && c.monitor);
    return {
      set,
      matrix: sharedMatrix(wiring, [...new Set(parts.flatMap((p) => p.about))]),
      unnamed: parts.filter((p) => p.about.length === 0 && !hasCondition(p)),
    };
  }, [folded, wiring]);
}
