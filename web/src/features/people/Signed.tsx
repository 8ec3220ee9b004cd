"use client";
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import type { Units } from "@radicula/core";
import type { Role } from "@/ui/roles";
import { UnitsOf } from "@/ui/Units";
import { askAuth, SessionAnswer } from "./askAuth";

export interface SignedPerson {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}
interface SignedState {
  /** people sign in here; else everybody who reaches this machine may do everything */
  readonly isOn: boolean;
  /** who signed in last on this page; what is typed is theirs, also after the session has ended */
  readonly person: SignedPerson | undefined;
  readonly isSignedOut: boolean;
  /** asks the server who is signed in now */
  readonly look: () => Promise<void>;
}
const Context = createContext<SignedState>({
  isOn: false,
  person: undefined,
  isSignedOut: false,
  look: () => Promise.resolve(),
});
export const useSigned = (): SignedState => useContext(Context);

/** How often a page that is looked at asks who is signed in, ms. */
const LOOK_MS = 10 * 60_000;

/** Who is signed in, for every page. Changing the person leaves the page, and what is typed on it, as it is. */
export function Signed({
  isOn,
  initial,
  units,
  children,
}: Pick<SignedState, "isOn"> & {
  readonly initial: SignedPerson | undefined;
  readonly units: Units;
  readonly children: ReactNode;
}) {
  const [person, setPerson] = useState(initial);
  const [isSignedOut, setSignedOut] = useState(initial === undefined);
  const look = useCallback(async () => {
    const answer = await askAuth("get-session", undefined, SessionAnswer);
    if (!answer.ok) return;
    setSignedOut(answer.body === null);
    if (answer.body) setPerson(answer.body.user);
  }, []);
  useEffect(() => {
    if (!isOn) return;
    const seen = () => {
      if (!document.hidden) void look();
    };
    const timer = setInterval(seen, LOOK_MS);
    document.addEventListener("visibilitychange", seen);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [isOn, look]);
  const state = useMemo(() => ({ isOn, person, isSignedOut, look }), [isOn, person, isSignedOut, look]);
  return (
    <Context value={state}>
      <UnitsOf person={person?.id} initial={units}>
        {children}
      </UnitsOf>
    </Context>
  );
}
