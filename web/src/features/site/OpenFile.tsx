"use client";
import { FolderOpenOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { LongWork } from "@/ui/LongWork";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { DropFiles } from "./DropFiles";
import { openFile } from "./openFile";
import { t } from "@/messages";

/** Opens a file by a button, or dropped anywhere on the page. A file that does not read changes nothing. */
export function OpenFile({ as, testId }: { readonly as: "job" | "wiring"; readonly testId: string }) {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const [reading, setReading] = useState<{ readonly name: string; readonly stopper: AbortController } | undefined>(
    undefined,
  );
  const [refusal, setRefusal] = useState<FileRefusal | undefined>(undefined);
  const open = async (file: File) => {
    reading?.stopper.abort();
    const stopper = new AbortController();
    setReading({ name: file.name, stopper });
    setRefusal(undefined);
    const opened = await openFile(file, as, stopper.signal);
    if (opened.ok) router.push(opened.path);
    else setRefusal({ file: file.name, issues: opened.issues });
    setReading((r) => (r?.stopper === stopper ? undefined : r));
    if (input.current) input.current.value = "";
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,.csv,.tsv,.txt"
        hidden
        data-testid={testId}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void open(file);
        }}
      />
      <Button icon={<FolderOpenOutlined />} loading={reading !== undefined} onClick={() => input.current?.click()}>
        {t("site.openAFile")}
      </Button>
      <DropFiles onFile={(f) => void open(f)} says={t("site.dropTheFileToOpenIt")} />
      {reading ? (
        <LongWork
          key={reading.name}
          says={t("site.opening", { file: reading.name })}
          onStop={() => reading.stopper.abort()}
        />
      ) : null}
      {refusal ? <RefusedFile {...refusal} /> : null}
    </>
  );
}
