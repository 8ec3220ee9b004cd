"use client";
import { meterPoints, type ChartStep, type SchoolEntry, type Wiring } from "@radicula/core";
import { type Instructor, type Namer, wordedList } from "@radicula/core/words";
import { Button, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "./MakerChartSheet.module.css";
import { branchProblems, NEXT, makerChartSteps, toChart, type MakerChartRow } from "./makerChartRows";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly chart: readonly ChartStep[] | undefined;
  readonly onLog: (entry: SchoolEntry) => void;
  readonly onClose: () => void;
}
const METERS: readonly { readonly value: MakerChartRow["how"]; readonly label: string }[] = wordedList(() => [
  { value: "volts", label: t("policy.voltsPlugged") },
  { value: "voltsUnplugged", label: t("policy.voltsItsPlugOff") },
  { value: "ohms", label: t("policy.ohmsItsPlugOff") },
  { value: "scan", label: t("policy.scanToolVolts") },
]);

/** As many as the format of a case takes. */
const MOST_STEPS = 200;

/** A maker's chart typed in: ordered readings, what is good, and where each answer leads. */
export function MakerChartSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("policy.theMakersChartStepByStep")} width={960} keeps>
      <MakerChartForm {...p} />
    </Sheet>
  );
}

function MakerChartForm({ wiring, namer, instructor, chart, onLog }: Props) {
  const [rows, setRows] = useState<readonly MakerChartRow[]>(() => makerChartSteps(chart));
  const points = useMemo(
    () => meterPoints(wiring).map((p) => ({ value: p, label: `${namer.point(p)} · ${instructor.functionOf(p)}` })),
    [wiring, namer, instructor],
  );
  const change = (i: number, more: Partial<MakerChartRow>) =>
    setRows((list) => list.map((r, j) => (i === j ? { ...r, ...more } : r)));
  const made = toChart(rows, wiring);
  const problems = branchProblems(rows);
  const targets = [
    { value: NEXT, label: t("policy.nextStep") },
    ...rows.map((_, i) => ({ value: i, label: t("policy.step", { i: i + 1 }) })),
    { value: rows.length, label: t("policy.endOfChart") },
  ];
  return (
    <div className={styles.sheet}>
      <p className="muted">{t("policy.typeTheStepsAsTheMaker")}</p>
      <div className={styles.table}>
        <table>
          <thead>
            <tr>
              <th>{t("policy.step2")}</th>
              <th>{t("policy.measureAt")}</th>
              <th>{t("policy.how")}</th>
              <th>{t("policy.goodFrom")}</th>
              <th>{t("policy.to")}</th>
              <th>{t("policy.goodGoTo")}</th>
              <th>{t("policy.badGoTo")}</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => (
              <StepRow
                key={i}
                step={i + 1}
                row={r}
                points={points}
                targets={targets}
                isOnly={rows.length < 2}
                onChange={(more) => change(i, more)}
                onDrop={() => setRows((list) => list.filter((_, j) => j !== i))}
              />
            ))}
          </tbody>
        </table>
      </div>
      <Button
        onClick={() => setRows((list) => [...list, ...makerChartSteps(undefined)])}
        disabled={rows.length >= MOST_STEPS}
      >
        {t("policy.addAStep")}
      </Button>
      {problems.length ? (
        <p role="alert" className={styles.warn}>
          {problems.join(" ")}
        </p>
      ) : null}
      <Button
        type="primary"
        size="large"
        block
        disabled={!made || problems.length > 0}
        onClick={() => made && onLog({ type: "school", at: new Date().toISOString(), school: "chart", chart: made })}
      >
        {t("policy.followThisChart")}
      </Button>
    </div>
  );
}

function StepRow({
  step,
  row: r,
  points,
  targets,
  isOnly,
  onChange,
  onDrop,
}: {
  readonly step: number;
  readonly row: MakerChartRow;
  readonly points: { value: string; label: string }[];
  readonly targets: { value: number; label: string }[];
  readonly isOnly: boolean;
  readonly onChange: (more: Partial<MakerChartRow>) => void;
  readonly onDrop: () => void;
}) {
  return (
    <tr>
      <td className="mono">{step}</td>
      <td>
        <Select
          aria-label={t("policy.whereStep", { step })}
          showSearch={{ optionFilterProp: "label" }}
          placeholder={t("policy.connectorAndCavity")}
          value={r.point}
          onChange={(point: string) => onChange({ point })}
          options={points}
          style={{ width: 220 }}
        />
      </td>
      <td>
        <Select
          aria-label={t("policy.howStep", { step })}
          value={r.how}
          onChange={(how: MakerChartRow["how"]) => onChange({ how })}
          options={[...METERS]}
          style={{ width: 160 }}
        />
      </td>
      <td>
        <InputNumber
          aria-label={t("policy.goodFromStep", { step })}
          value={r.low}
          onChange={(low) => onChange({ low })}
          style={{ width: 80 }}
        />
      </td>
      <td>
        <InputNumber
          aria-label={t("policy.goodToStep", { step })}
          value={r.high}
          onChange={(high) => onChange({ high })}
          style={{ width: 80 }}
        />
      </td>
      <td>
        <Select
          aria-label={t("policy.ifGoodStep", { step })}
          value={r.good}
          onChange={(good: number) => onChange({ good })}
          options={targets}
          style={{ width: 120 }}
        />
      </td>
      <td>
        <Select
          aria-label={t("policy.ifBadStep", { step })}
          value={r.bad}
          onChange={(bad: number) => onChange({ bad })}
          options={targets}
          style={{ width: 120 }}
        />
      </td>
      <td>
        <Button type="text" aria-label={t("policy.takeStepOut", { step })} disabled={isOnly} onClick={onDrop}>
          ×
        </Button>
      </td>
    </tr>
  );
}
