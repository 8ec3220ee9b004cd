"use client";
import { Button } from "antd";
import { useEffect, useState } from "react";
import styles from "./people.module.css";
import { t } from "@/messages";

const KEYS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"];
const MOST = 8;
const LEAST = 4;

/** Digits for gloved fingers; a keyboard does as well. */
export function PinPad({ isBusy, onPin }: { readonly isBusy: boolean; readonly onPin: (pin: string) => void }) {
  const [pin, setPin] = useState("");
  const canSend = pin.length >= LEAST && !isBusy;
  const add = (digit: string) => setPin((p) => (p + digit).slice(0, MOST));
  const send = () => {
    if (!canSend) return;
    onPin(pin);
    setPin("");
  };
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (/^\d$/.test(e.key)) add(e.key);
      else if (e.key === "Backspace") setPin((p) => p.slice(0, -1));
      else if (e.key === "Enter") send();
      else return;
      e.preventDefault();
      e.stopPropagation();
    };
    // before the shortcuts of the page below
    window.addEventListener("keydown", key, true);
    return () => window.removeEventListener("keydown", key, true);
  });
  return (
    <div className={styles.pin}>
      <output className={styles.dots} aria-label={t("people.digitsTyped")}>
        {pin.length ? "•".repeat(pin.length) : t("people.typeYourPin")}
      </output>
      <div className={styles.keys}>
        {KEYS.map((k) => (
          <Button key={k} onClick={() => add(k)}>
            {k}
          </Button>
        ))}
        <Button onClick={() => setPin((p) => p.slice(0, -1))} aria-label={t("people.deleteTheLastDigit")}>
          ⌫
        </Button>
        <Button onClick={() => add("0")}>0</Button>
        <Button type="primary" disabled={!canSend} loading={isBusy} onClick={send}>
          {t("people.ok")}
        </Button>
      </div>
    </div>
  );
}
