"use client";
import { meterPoints, type ChartStep, type SchoolEntry, type Wiring } from "@radicula/core";
import type { Instructor, Namer } from "@radicula/core/words";
import { Button, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { Sheet } from "../Sheet";
import styles from "./MakerChartSheet.module.css";
import { branchProblems, NEXT, makerChartSteps, toChart, type MakerChartRow } from "./makerChartRows";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly namer: Namer;
  readonly instructor: Instructor;
  readonly chart: readonly ChartStep[] | undefined;
  readonly onLog: (entry: SchoolEntry) => void;
  readonly onClose: () => void;
}
const METERS: readonly { readonly value: MakerChartRow["how"]; readonly label: string }[] = [
  { value: "volts", label: "volts, plugged" },
  { value: "voltsUnplugged", label: "volts, its plug off" },
  { value: "ohms", label: "ohms, its plug off" },
  { value: "scan", label: "scan tool, volts" },
];

/** A maker's chart typed in: ordered readings, what is good, and where each answer leads. */
export function MakerChartSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title="The maker’s chart, step by step" width={960}>
      <Body {...p} />
    </Sheet>
  );
}

function Body({ wiring, namer, instructor, chart, onLog }: Props) {
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
    { value: NEXT, label: "next step" },
    ...rows.map((_, i) => ({ value: i, label: `step ${i + 1}` })),
    { value: rows.length, label: "end of chart" },
  ];
  return (
    <div className={styles.sheet}>
      <p className="muted">
        Type the steps as the maker prints them. Each answer then leads where the chart says; the suspects go on being
        weighed beside it, and when the chart ends the best next reading takes over.
      </p>
      <div className={styles.table}>
        <table>
          <thead>
            <tr>
              <th>Step</th>
              <th>Measure at</th>
              <th>How</th>
              <th>Good from</th>
              <th>to</th>
              <th>Good: go to</th>
              <th>Bad: go to</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => (
              <tr key={i}>
                <td className="mono">{i + 1}</td>
                <td>
                  <Select
                    aria-label={`Where, step ${i + 1}`}
                    showSearch={{ optionFilterProp: "label" }}
                    placeholder="Connector and cavity"
                    value={r.point}
                    onChange={(point: string) => change(i, { point })}
                    options={points}
                    style={{ width: 220 }}
                  />
                </td>
                <td>
                  <Select
                    aria-label={`How, step ${i + 1}`}
                    value={r.how}
                    onChange={(how: MakerChartRow["how"]) => change(i, { how })}
                    options={[...METERS]}
                    style={{ width: 160 }}
                  />
                </td>
                <td>
                  <InputNumber
                    aria-label={`Good from, step ${i + 1}`}
                    value={r.low}
                    onChange={(low) => change(i, { low })}
                    style={{ width: 80 }}
                  />
                </td>
                <td>
                  <InputNumber
                    aria-label={`Good to, step ${i + 1}`}
                    value={r.high}
                    onChange={(high) => change(i, { high })}
                    style={{ width: 80 }}
                  />
                </td>
                <td>
                  <Select
                    aria-label={`If good, step ${i + 1}`}
                    value={r.good}
                    onChange={(good: number) => change(i, { good })}
                    options={targets}
                    style={{ width: 120 }}
                  />
                </td>
                <td>
                  <Select
                    aria-label={`If bad, step ${i + 1}`}
                    value={r.bad}
                    onChange={(bad: number) => change(i, { bad })}
                    options={targets}
                    style={{ width: 120 }}
                  />
                </td>
                <td>
                  <Button
                    type="text"
                    aria-label={`Take step ${i + 1} out`}
                    disabled={rows.length < 2}
                    onClick={() => setRows((list) => list.filter((_, j) => j !== i))}
                  >
                    ×
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button onClick={() => setRows((list) => [...list, ...makerChartSteps(undefined)])} disabled={rows.length >= 200}>
        Add a step
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
        Follow this chart
      </Button>
    </div>
  );
}
