"use client";
import { FolderOpenOutlined } from "@ant-design/icons";
import type { Issue } from "@radicula/core";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { say } from "@/messages/issues";
import styles from "./Board.module.css";

/** a zip may be larger than the text in it; the server has limits for both */
const MOST_BYTES = 60_000_000;
type Refusal = { readonly file: string; readonly issues: readonly Issue[] };

/** Opens a case or wiring file. A file that does not read changes nothing, and every reason is listed with its place. */
export function Importer() {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<Refusal | undefined>(undefined);

  const open = async (file: File) => {
    setBusy(true);
    setRefusal(undefined);
    try {
      if (file.size > MOST_BYTES) {
        setRefusal({
          file: file.name,
          issues: [{ code: "file.too-large", path: [], params: { characters: file.size, limit: MOST_BYTES } }],
        });
        return;
      }
      const zipped = /\.zip$/i.test(file.name) || file.type === "application/zip";
      const response = await fetch("/api/jobs", {
        method: "POST",
        headers: { "Content-Type": zipped ? "application/zip" : "application/json" },
        body: zipped ? file : await file.text(),
      });
      const body = (await response.json()) as { id?: string; issues?: Issue[] };
      if (body.id) router.push(`/job/${body.id}`);
      else setRefusal({ file: file.name, issues: body.issues ?? [{ code: "server.failed", path: [], params: {} }] });
    } catch {
      setRefusal({ file: file.name, issues: [{ code: "server.database-gone", path: [], params: {} }] });
    } finally {
      setBusy(false);
      if (input.current) input.current.value = "";
    }
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
      {refusal ? (
        <div role="alert" className={styles.refused} style={{ flexBasis: "100%" }}>
          <b>{refusal.file} was not taken; nothing was saved.</b>
          <ul>
            {refusal.issues.slice(0, 12).map((issue, i) => {
              const { text, place } = say(issue);
              return (
                <li key={i}>
                  {place ? (
                    <>
                      <code>{place}</code>:{" "}
                    </>
                  ) : null}
                  {text}
                </li>
              );
            })}
          </ul>
          {refusal.issues.length > 12 ? <p>and {refusal.issues.length - 12} more</p> : null}
        </div>
      ) : null}
    </>
  );
}
