"use client";
import { useState } from "react";
import { DropFiles } from "@/features/site/DropFiles";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { t } from "@/messages";
import { useCase } from "../session/caseContext";

/**
 * Takes a file dropped anywhere on an open job: codes go into the scan box, a recording is opened; both are to be
 * looked at before they count.
 */
export function DropOnJob() {
  const { wiring, sheets } = useCase();
  const [refusal, setRefusal] = useState<FileRefusal | undefined>(undefined);
  const take = async (file: File) => {
    // what reads files comes with the first one
    const { droppedFile } = await import("./droppedFile");
    const found = await droppedFile(file, wiring);
    setRefusal("issue" in found ? { file: file.name, issues: [found.issue] } : undefined);
    if ("recording" in found) sheets.giveRecording({ file, name: file.name });
    if ("text" in found) sheets.giveCodes(found.text);
  };
  return (
    <>
      <DropFiles onFile={(f) => void take(f)} says={t("scan.dropTheCodes")} />
      {refusal ? <RefusedFile {...refusal} /> : null}
    </>
  );
}
