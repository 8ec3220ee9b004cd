"use client";
import { createContext, useContext } from "react";
import type { CaseSession } from "./useCaseSession";

export const CaseContext = createContext<CaseSession | undefined>(undefined);

/** The case this part of the screen belongs to. */
export function useCase(): CaseSession {
  const session = useContext(CaseContext);
  if (!session) throw new Error("a part of the case outside a case");
  return session;
}
