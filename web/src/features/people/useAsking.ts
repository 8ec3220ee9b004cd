"use client";
import { useCallback, useState } from "react";
import { authText, type Asked } from "./askAuth";

/** One question to the sign-in at a time: whether it is under way, and what went wrong with the last. */
export function useAsking() {
  const [isBusy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | undefined>(undefined);
  const ask = useCallback(async <T>(question: () => Promise<Asked<T>>): Promise<T | undefined> => {
    setBusy(true);
    setWrong(undefined);
    const answer = await question();
    setBusy(false);
    if (answer.ok) return answer.body;
    setWrong(authText(answer.code, answer.seconds));
    return undefined;
  }, []);
  return { ask, isBusy, wrong };
}
