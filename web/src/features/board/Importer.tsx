"use client";
import { FolderOpenOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { Made, postAs } from "@/ui/send";

/** a zip may be larger than the text in it; the server has limits for both */
const MOST_BYTES = 60_000_000;

/**
 * Opens a case or wiring file. A file that does not read changes nothing, and every reason is listed with its place.
 */
export function Importer() {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<FileRefusal | undefined>(undefined);

  const open = async (file: File) => {
    setBusy(true);
    setRefusal(await take(file));
    setBusy(false);
    if (input.current) input.current.value = "";
  };
  /** @returns why it was not taken */
  const take = async (file: File): Promise<FileRefusal | undefined> => {
    if (file.size > MOST_BYTES) {
      const params = { characters: file.size, limit: MOST_BYTES };
      return { file: file.name, issues: [{ code: "file.too-large", path: [], params }] };
    }
    const zipped = /\.zip$/i.test(file.name) || file.type === "application/zip";
    const type = zipped ? "application/zip" : "application/json";
    const made = await postAs(type, "/api/jobs", zipped ? file : await file.text(), Made);
    if (!made.ok) return { file: file.name, issues: made.issues };
    router.push(`/job/${made.body.id}`);
    return undefined;
  };

  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        hidden
        data-testid="import"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void open(file);
        }}
      />
      <Button icon={<FolderOpenOutlined />} loading={busy} onClick={() => input.current?.click()}>
        Open a file
      </Button>
      {refusal ? <RefusedFile {...refusal} /> : null}
    </>
  );
}
