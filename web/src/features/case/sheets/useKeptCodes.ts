"use client";
import { useState } from "react";
import { Done, post } from "@/ui/send";
import { useCase } from "../session/caseContext";

/** Codes that scans brought and the library's wiring does not have yet, and keeping them there for the next job. */
export function useKeptCodes(): { readonly unkept: number; readonly keep: () => Promise<void> } {
  const { job, wiring } = useCase();
  const [kept, setKept] = useState(0);
  const unkept = job.library ? wiring.codes.length - job.wiring.codes.length : 0;
  const keep = async () => {
    if ((await post(`/api/jobs/${job.id}/codes`, {}, Done)).ok) setKept(unkept);
  };
  return { unkept: unkept - kept, keep };
}
