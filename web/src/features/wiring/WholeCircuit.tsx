"use client";
import { GROUPS, GROUP_SIZES, type GroupKind } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Button, InputNumber, Popover, Radio } from "antd";
import { useState } from "react";
import styles from "./Workbench.module.css";
import { t } from "@/messages";

const NAMES: Readonly<Record<GroupKind, string>> = worded(() => ({
  sharedReference: t("wiring.sensorsOnOneReference"),
  sharedFeed: t("wiring.valvesOnOneFeed"),
  bus: t("wiring.modulesOnABus"),
  heaterBridge: t("wiring.heatersOnABar"),
  pedalTwoTracks: t("wiring.pedalWithTwoTracks"),
}));

/** Lays down a whole circuit: its members, what they share, and the pins at the module. */
export function WholeCircuit({ onAdd }: { readonly onAdd: (kind: GroupKind, members: number) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [kind, setKind] = useState<GroupKind>("sharedReference");
  const [members, setMembers] = useState(GROUP_SIZES.sharedReference.usual);
  const { least, most } = GROUP_SIZES[kind];
  const add = () => {
    onAdd(kind, members);
    setOpen(false);
  };
  return (
    <Popover
      trigger="click"
      open={isOpen}
      onOpenChange={setOpen}
      content={
        <form
          className={styles.circuit}
          aria-label={t("wiring.aWholeCircuit")}
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <Radio.Group
            vertical
            value={kind}
            options={GROUPS.map((g) => ({ value: g, label: NAMES[g] }))}
            onChange={(e) => {
              const next = e.target.value as GroupKind;
              setKind(next);
              setMembers(GROUP_SIZES[next].usual);
            }}
          />
          {least < most ? (
            <label>
              {t("wiring.howMany")}{" "}
              <InputNumber
                min={least}
                max={most}
                precision={0}
                value={members}
                onChange={(n) => setMembers(n ?? least)}
              />
            </label>
          ) : null}
          <Button type="primary" htmlType="submit">
            {t("wiring.layItDown")}
          </Button>
        </form>
      }
    >
      <button type="button">+ {t("wiring.aWholeCircuit")}</button>
    </Popover>
  );
}
