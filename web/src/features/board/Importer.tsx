"use client";
import { FolderOpenOutlined } from "@ant-design/icons";
import type { Issue } from "@radicula/core";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { say } from "@/messages/issues";
import { Made, postAs } from "@/ui/send";
import styles from "./Board.module.css";

/** a zip may be larger than the text in it; the server has limits for both */
const MOST_BYTES = 60_000_000;
type Refused = { readonly file: string; readonly issues: readonly Issue[] };

/**
 * Opens a case or wiring file. A file that does not read changes nothing, and every reason is listed with its place.
 */
export function Importer() {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [refusal, setRefusal] = useState<Refused | undefined>(undefined);

  const open = async (file: File) => {
    setBusy(true);
    setRefusal(await take(file));
    setBusy(false);
    if (input.current) input.current.value = "";
  };
  /** @returns why it was not taken */
  const take = async (file: File): Promise<Refused | undefined> => {
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
