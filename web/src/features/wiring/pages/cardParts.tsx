"use client";
import { type Chart, type DrawingSheet, type ReadSheet, type TakenBox } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Button } from "antd";
import type { ReactNode } from "react";
import type { Page } from "@/ui/page/fetchPage";
import { wordsNear, type Tapped } from "./hit";
import { Suggestions } from "./Suggestions";
import styles from "./Pages.module.css";
import { t } from "@/messages";

export interface CardProps {
  readonly chart: Chart;
  readonly sheet: DrawingSheet;
  readonly read: ReadSheet;
  readonly tapped: Tapped;
  readonly page: Page | undefined;
  /** the cavity, splice or ground from which a wire is being laid */
  readonly from: string | undefined;
  readonly onChart: (make: (chart: Chart) => Chart) => void;
  readonly onFrom: (from: string | undefined) => void;
  readonly onTap: (tapped: Tapped | undefined) => void;
  /** a table of pins that stands on the page */
  readonly onTable: (text: string) => void;
}

/** PageWords that stand at what was tapped. */
export function PageWords({
  sheet,
  page,
  tapped,
  onChoose,
}: CardProps & { readonly onChoose: (text: string) => void }) {
  if (!page?.content) return null;
  const words = wordsNear(page.content.words, tapped, Math.max(sheet.width, sheet.height) / 100);
  return <Suggestions sheet={sheet} page={page} words={words} onChoose={onChoose} />;
}

/** Enter takes it. */
export function Form({
  title,
  canTake,
  onTake,
  take = t("paper.takeIt"),
  before,
  children,
}: {
  readonly title: string;
  readonly canTake: boolean;
  readonly onTake: () => void;
  readonly take?: string;
  /** something else that may be done with it */
  readonly before?: ReactNode;
  readonly children?: ReactNode;
}) {
  return (
    <form
      className={styles.form}
      aria-label={title}
      onSubmit={(e) => {
        e.preventDefault();
        if (canTake) onTake();
      }}
    >
      {before}
      <h2>{title}</h2>
      {children}
      <Button type="primary" htmlType="submit" disabled={!canTake} data-testid="take-it">
        {take}
      </Button>
    </form>
  );
}

export const NAME = /^[\p{L}\p{N}][\p{L}\p{N}_+/-]{0,39}$/u;
export const BOX_KINDS: Readonly<Record<TakenBox["kind"], string>> = worded(() => ({
  connector: t("paper.connector"),
  module: t("paper.module"),
  inline: t("paper.inline"),
  fuse: t("paper.fuse"),
  battery: t("paper.battery"),
}));
export const KIND_LIST = ["connector", "module", "inline", "fuse"] as const;
export const BATTERY_LIST = [...KIND_LIST, "battery"] as const;
