"use client";
import type { Issue } from "@radicula/core";
import { Button, Input, Modal, Select } from "antd";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { say } from "@/messages/issues";
import { Made, post } from "@/ui/send";
import styles from "./Board.module.css";
import { t } from "@/messages";

export interface WiringChoice {
  readonly id: string;
  readonly name: string;
  readonly machineType: string;
}
const NEW = { "new 12": 12, "new 24": 24 } as const;

/**
 * A job in three answers: which machine, what the customer says, which wiring. A wiring not yet in the library is typed
 * next.
 */
export function NewJob({ wirings }: { readonly wirings: readonly WiringChoice[] }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [busy, setBusy] = useState(false);
  const [machine, setMachine] = useState("");
  const [complaint, setComplaint] = useState("");
  const [wiring, setWiring] = useState<string>("new 12");
  const [refused, setRefused] = useState<readonly Issue[]>([]);
  const isNew = wiring in NEW;
  const start = async () => {
    if (busy) return;
    setBusy(true);
    setRefused([]);
    const title = firstWords(complaint) || machine.trim() || t("board.newJob");
    const body = {
      title,
      ...(machine.trim() ? { machine: machine.trim() } : {}),
      ...(complaint.trim() ? { complaint: complaint.trim() } : {}),
      wiring: isNew ? { machineType: "", nominalVolt: NEW[wiring as keyof typeof NEW] } : wiring,
    };
    const made = await post("/api/jobs", body, Made);
    if (made.ok)
      router.push(
        isNew ? `/wiring/${made.body.wiringId ?? ""}?job=${made.body.id}` : `/job/${made.body.id}?sheet=codes`,
      );
    else {
      setRefused(made.issues);
      setBusy(false);
    }
  };
  const begin = useRef(start);
  useEffect(() => {
    begin.current = start;
  });
  // wherever the focus is: while the form comes up it may not be in it yet
  useEffect(() => {
    if (!open) return undefined;
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== "Enter" || !(e.ctrlKey || e.metaKey)) return;
      e.preventDefault();
      void begin.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [open]);
  return (
    <>
      <Button type="primary" onClick={() => setOpen(true)}>
        {t("board.newJob")}
      </Button>
      <Modal
        open={open}
        onCancel={() => setOpen(false)}
        title={t("board.newJob")}
        footer={null}
        destroyOnHidden
        width={560}
      >
        <form
          className={styles.start}
          onSubmit={(e) => {
            e.preventDefault();
            void start();
          }}
        >
          <label>
            {t("board.machine")}
            <Input
              autoFocus
              value={machine}
              maxLength={120}
              placeholder={t("board.tug4SerialPlate")}
              onChange={(e) => setMachine(e.target.value)}
            />
          </label>
          <label>
            {t("board.whatTheCustomerSays")}
            <Input.TextArea
              value={complaint}
              maxLength={4000}
              autoSize={{ minRows: 2, maxRows: 6 }}
              placeholder={t("board.inTheirOwnWords")}
              onChange={(e) => setComplaint(e.target.value)}
            />
          </label>
          <label>
            {t("board.wiring")}
            <WiringChooser wirings={wirings} chosen={wiring} onChoose={setWiring} />
          </label>
          {refused.length ? (
            <p role="alert" className={styles.refused}>
              {refused.map((i) => say(i).text).join(" ")}
            </p>
          ) : null}
          <Button type="primary" htmlType="submit" block loading={busy}>
            {isNew ? t("board.startAndTypeTheWiring") : t("board.start")}
          </Button>
        </form>
      </Modal>
    </>
  );
}

function WiringChooser({
  wirings,
  chosen,
  onChoose,
}: {
  readonly wirings: readonly WiringChoice[];
  readonly chosen: string;
  readonly onChoose: (wiring: string) => void;
}) {
  return (
    <Select
      aria-label={t("board.wiring")}
      value={chosen}
      onChange={onChoose}
      showSearch={{ optionFilterProp: "label" }}
      options={[
        {
          label: t("board.notHereYet"),
          options: [
            { value: "new 12", label: t("board.typeANewOne12V") },
            { value: "new 24", label: t("board.typeANewOne24V") },
          ],
        },
        ...(wirings.length
          ? [
              {
                label: t("board.fromTheLibrary"),
                options: wirings.map((w) => ({
                  value: w.id,
                  label: w.machineType && w.machineType !== w.name ? `${w.name} · ${w.machineType}` : w.name,
                })),
              },
            ]
          : []),
      ]}
    />
  );
}

/** The first sentence of a complaint, or as many whole words of it as a title takes. */
export function firstWords(text: string): string {
  const sentence = /^[^.!?\n]*/.exec(text.trim())?.[0].trim() ?? "";
  return sentence.length <= 80 ? sentence : `${sentence.slice(0, 78).replace(/\s+\S*$/, "")} …`;
}
