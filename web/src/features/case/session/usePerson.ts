"use client";
import { useCallback, useEffect, useState } from "react";

const KEY = "radicula.person";
/** Who is working at this device; written beside every entry. */
export function usePerson(): readonly [string, (name: string) => void] {
  const [person, setPerson] = useState("");
  useEffect(() => {
    void Promise.resolve().then(() => setPerson(localStorage.getItem(KEY) ?? ""));
  }, []);
  const change = useCallback((name: string) => {
    setPerson(name.trimStart().slice(0, 60));
    localStorage.setItem(KEY, name.trim().slice(0, 60));
  }, []);
  return [person.trim() === "" ? "" : person, change];
}
