"use client";
import { Button } from "antd";
import { useState } from "react";
import { BenchSheet } from "../bench/BenchSheet";
import type { WiringChoice } from "./NewJob";
import { t } from "@/messages";

/** What a newcomer plays with first: any machine of the library, with a fault nobody knows. */
export function Practise({ wirings }: { readonly wirings: readonly WiringChoice[] }) {
  const [open, setOpen] = useState(false);
  return wirings.length ? (
    <>
      <Button onClick={() => setOpen(true)}>{t("board.practise")}</Button>
      <BenchSheet open={open} wirings={wirings} onClose={() => setOpen(false)} />
    </>
  ) : null;
}
