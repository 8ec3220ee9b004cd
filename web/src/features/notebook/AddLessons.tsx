"use client";
import { parseNotebook } from "@radicula/core";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { z } from "zod";
import { DropFiles } from "@/features/site/DropFiles";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { post } from "@/ui/send";
import styles from "./Notebook.module.css";
import { t } from "@/messages";

const Added = z.object({ added: z.number(), of: z.number() });

/** Takes in a notebook, by a button or dropped on the page. A file that does not read changes nothing. */
export function AddLessons() {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const [refusal, setRefusal] = useState<FileRefusal | undefined>(undefined);
  const [said, setSaid] = useState("");
  const add = async (file: File) => {
    setSaid("");
    const read = parseNotebook(await file.text());
    const sent = read.ok ? await post("/api/notebook", read.value, Added) : read;
    setRefusal(sent.ok ? undefined : { file: file.name, issues: sent.issues });
    if ("body" in sent && sent.ok) {
      const { added, of } = sent.body;
      const there = of - added;
      setSaid(t("notebook.added", { added, there }));
      router.refresh();
    }
    if (input.current) input.current.value = "";
  };
  return (
    <>
      <span role="status" className={styles.said}>
        {said}
      </span>
      <input
        ref={input}
        type="file"
        accept=".json"
        hidden
        data-testid="add-lessons"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void add(file);
        }}
      />
      <Button onClick={() => input.current?.click()}>{t("notebook.addLessonsFromAFile")}</Button>
      <DropFiles onFile={(f) => void add(f)} says={t("notebook.dropTheNotebookToAddIts")} />
      {refusal ? <RefusedFile {...refusal} /> : null}
    </>
  );
}
