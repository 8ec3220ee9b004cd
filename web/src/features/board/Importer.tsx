"use client";
import { FolderOpenOutlined } from "@ant-design/icons";
import { MAX_CHARACTERS, type Issue } from "@radicula/core";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { say } from "@/messages/issues";
import styles from "./Board.module.css";

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
      if (file.size > 4 * MAX_CHARACTERS) {
        setRefusal({ file: file.name, issues: [{ code: "file.too-large", path: [], params: { characters: file.size, limit: MAX_CHARACTERS } }] });
        return;
      }
      const response = await fetch("/api/jobs", { method: "POST", headers: { "Content-Type": "application/json" }, body: await file.text() });
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
      <input ref={input} type="file" accept=".json,application/json" hidden data-testid="import" onChange={(e) => { const file = e.target.files?.[0]; if (file) void open(file); }} />
      <Button icon={<FolderOpenOutlined />} loading={busy} onClick={() => input.current?.click()}>Open a case or wiring file</Button>
      {refusal ? (
        <div role="alert" className={styles.refused} style={{ flexBasis: "100%" }}>
          <b>{refusal.file} was not taken; nothing was saved.</b>
          <ul>{refusal.issues.slice(0, 12).map((issue, i) => { const { text, place } = say(issue); return <li key={i}>{place ? <><code>{place}</code>: </> : null}{text}</li>; })}</ul>
          {refusal.issues.length > 12 ? <p>and {refusal.issues.length - 12} more</p> : null}
        </div>
      ) : null}
    </>
  );
}
