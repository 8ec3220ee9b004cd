"use client";
import { cutText } from "@radicula/core";
import { useCallback, useEffect, useState } from "react";
import { useSigned } from "@/features/people/Signed";

const KEY = "radicula.person";
/**
 * Who is working at this device; written beside every entry. Where people sign in it is who has signed in, and nobody
 * can write in another's name.
 */
export function usePerson(): readonly [string, ((name: string) => void) | undefined] {
  const signed = useSigned();
  const [person, setPerson] = useState("");
  useEffect(() => {
    void Promise.resolve().then(() => setPerson(localStorage.getItem(KEY) ?? ""));
  }, []);
  const change = useCallback((name: string) => {
    setPerson(cutText(name.trimStart(), 60));
    localStorage.setItem(KEY, cutText(name.trim(), 60));
  }, []);
  if (signed.isOn) return [signed.person?.name ?? "", undefined];
  return [person.trim() === "" ? "" : person, change];
}
