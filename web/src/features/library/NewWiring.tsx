"use client";
import { Button } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { OpenFile } from "@/features/site/OpenFile";
import { RefusedFile, type FileRefusal } from "@/ui/RefusedFile";
import { Made, post } from "@/ui/send";
import styles from "./Library.module.css";
import { t } from "@/messages";

const make = (body: object) => post("/api/wirings", body, Made);

/** A new wiring: an empty chart, or from a wiring, chart or CSV file. */
export function NewWiring() {
  const router = useRouter();
  const [refused, setRefused] = useState<FileRefusal | undefined>(undefined);
  const begin = async () => {
    const made = await make({ name: "", machineType: "", nominalVolt: 12 });
    if (made.ok) router.push(`/wiring/${made.body.id}`);
    else setRefused({ file: t("library.theNewWiring"), issues: made.issues });
  };
  return (
    <>
      <span className={styles.actions}>
        <OpenFile as="wiring" testId="wiring-file" />
        <Button type="primary" onClick={() => void begin()}>
          {t("library.newWiring")}
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
      {t("library.copy")}
    </Button>
  );
}
