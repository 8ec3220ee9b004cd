"use client";
import { MAX_CHARACTERS } from "@radicula/core";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { Made, post, type Posted, postAs } from "@/ui/send";
import styles from "./Library.module.css";

const make = (body: object) => post("/api/wirings", body, Made);
/** As long as the name of a wiring may be. */
const LONGEST_NAME = 120;
/** A file that is JSON already goes as it is. */
const makeFromJson = (text: string) => postAs("application/json", "/api/wirings", text, Made);

/** A new wiring: an empty chart, or from a wiring, chart or CSV file. */
export function NewWiring() {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<FileRefusal | undefined>(undefined);
  const go = (file: string, made: Posted<{ id: string }>) => {
    if (made.ok) router.push(`/wiring/${made.body.id}`);
    else setRefused({ file, issues: made.issues });
  };
  const open = async (file: File) => {
    if (input.current) input.current.value = "";
    if (file.size > 4 * MAX_CHARACTERS) {
      setRefused({
        file: file.name,
        issues: [{ code: "file.too-large", path: [], params: { characters: file.size, limit: MAX_CHARACTERS } }],
      });
      return;
    }
    const bytes = await file.arrayBuffer();
    let text: string;
    try {
      text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    } catch {
      text = new TextDecoder("windows-1252").decode(bytes);
    }
    go(
      file.name,
      await (/^\s*[{[]/.test(text)
        ? makeFromJson(text)
        : make({ csv: text, name: file.name.replace(/\.[^.]*$/, "").slice(0, LONGEST_NAME) })),
    );
  };
  return (
    <>
      <span className={styles.actions}>
        <input
          ref={input}
          type="file"
          accept=".json,.csv,.tsv,.txt"
          hidden
          data-testid="wiring-file"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void open(file);
          }}
        />
        <Button onClick={() => input.current?.click()}>Open a file</Button>
        <Button
          type="primary"
          onClick={() => void make({ name: "", machineType: "", nominalVolt: 12 }).then((m) => go("The new wiring", m))}
        >
          New wiring
        </Button>
      </span>
      {refused ? <RefusedFile {...refused} /> : null}
    </>
  );
}

export function CopyButton({ id }: { readonly id: string }) {
  const router = useRouter();
  return (
    <Button
      onClick={() =>
        void make({ copyOf: id }).then((m) => {
          if (m.ok) router.push(`/wiring/${m.body.id}`);
        })
      }
    >
      Copy
    </Button>
  );
}
