"use client";
import type { Issue } from "@radicula/core";
import { Button, Checkbox, Modal, Radio, Select } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { say } from "@/messages/issues";
import { Made, post } from "@/ui/send";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  /** the machine of this job, or one of the library's */ readonly job?: string;
  readonly wirings?: readonly { readonly id: string; readonly name: string }[];
  readonly onClose: () => void;
}

/**
 * A machine put on the bench: the same wiring, with faults hidden on it that nobody knows, and instruments that answer.
 */
export function BenchSheet({ open, job, wirings, onClose }: Props) {
  const router = useRouter();
  const [faults, setFaults] = useState(1);
  const [comesAndGoes, setComesAndGoes] = useState(false);
  const [wiring, setWiring] = useState<string | undefined>(undefined);
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<readonly Issue[]>([]);
  const start = async () => {
    setBusy(true);
    const made = await post("/api/jobs/bench", { ...(job ? { job } : { wiring }), faults, comesAndGoes }, Made);
    if (made.ok) router.push(`/job/${made.body.id}?sheet=codes`);
    else {
      setRefused(made.issues);
      setBusy(false);
    }
  };
  return (
    <Modal open={open} onCancel={onClose} title={t("bench.onTheBench")} footer={null} destroyOnHidden width={520}>
      <p>{t("bench.theSameMachineSimulatedWithA")}</p>
      <div style={{ display: "grid", gap: 12, margin: "12px 0" }}>
        {wirings ? (
          <Select
            aria-label={t("bench.machine")}
            placeholder={t("bench.whichMachine")}
            value={wiring}
            showSearch={{ optionFilterProp: "label" }}
            onChange={(v: string) => {
              setWiring(v);
              setRefused([]);
            }}
            options={wirings.map((w) => ({ value: w.id, label: w.name }))}
          />
        ) : null}
        <Radio.Group
          value={faults}
          onChange={(e) => setFaults(e.target.value as number)}
          optionType="button"
          options={[
            { value: 1, label: t("bench.oneFault") },
            { value: 2, label: t("bench.twoAtOnce") },
            { value: 3, label: t("bench.threeAtOnce") },
          ]}
        />
        <Checkbox checked={comesAndGoes} onChange={(e) => setComesAndGoes(e.target.checked)}>
          {t("bench.itComesAndGoes")}
        </Checkbox>
      </div>
      {refused.length ? <p role="alert">{refused.map((i) => say(i).text).join(" ")}</p> : null}
      <Button
        type="primary"
        size="large"
        block
        loading={busy}
        disabled={!job && wiring === undefined}
        onClick={() => void start()}
      >
        {t("bench.putItOnTheBench")}
      </Button>
    </Modal>
  );
}
