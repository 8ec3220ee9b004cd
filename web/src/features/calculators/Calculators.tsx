"use client";
import {
  calculate,
  CALCULATORS,
  curveOf,
  formatQuantity,
  fromPreferred,
  preferredText,
  preferredUnit,
  toPreferred,
  type CalculatorId,
  type Units,
} from "@radicula/core";
import { CALCULATOR_WORDS } from "@radicula/core/words";
import { Input } from "antd";
import dynamic from "next/dynamic";
import { useState } from "react";
import { capital } from "@/ui/text";
import { useUnits } from "@/ui/Units";
import styles from "./Calculators.module.css";
import { t } from "@/messages";

/** The drawing library comes with the first curve. */
const CurveChart = dynamic(() => import("./CurveChart").then((m) => m.CurveChart), {
  ssr: false,
  loading: () => <div className={styles.curve} data-loading="true" />,
});

/** What a step already knows, put into the sum it needs. */
export interface Prefilled {
  readonly id: CalculatorId;
  readonly values: Readonly<Record<string, number>>;
}

/**
 * The sums of the trade, each with its formula and where that comes from.
 * @param first the one a step needs, with what is known filled in
 */
export function Calculators({ first }: { readonly first?: Prefilled | undefined }) {
  const order = [...CALCULATORS].sort((a, b) => Number(b.id === first?.id) - Number(a.id === first?.id));
  return (
    <div className={styles.grid}>
      {order.map((c) => (
        <One key={c.id} id={c.id} start={c.id === first?.id ? first.values : {}} open={c.id === first?.id} />
      ))}
    </div>
  );
}

function One({
  id,
  start,
  open,
}: {
  readonly id: CalculatorId;
  readonly start: Readonly<Record<string, number>>;
  readonly open: boolean;
}) {
  const c = CALCULATORS.find((x) => x.id === id)!;
  const words = CALCULATOR_WORDS[id];
  const units = useUnits();
  const startTexts = () =>
    Object.fromEntries(c.inputs.map((i) => [i.id, typed(start[i.id] ?? i.start, i.unit, units)]));
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(startTexts);
  // with other units it starts anew
  const [ofUnits, setOfUnits] = useState(units);
  if (ofUnits !== units) {
    setOfUnits(units);
    setTexts(startTexts());
  }
  const values = Object.fromEntries(c.inputs.map((i) => [i.id, fromPreferred(texts[i.id] ?? "", i.unit, units)]));
  const { outputs, wrong } = calculate(id, values);
  const curve = curveOf(id, values);
  return (
    <section className={styles.one} data-open={open} aria-label={words.title}>
      <h2>{words.title}</h2>
      <p className="muted">{capital(words.when)}.</p>
      <div className={styles.fields}>
        {c.inputs.map((i) => (
          <label key={i.id}>
            {words.names[i.id]}
            <Input
              className="mono"
              size="small"
              value={texts[i.id] ?? ""}
              status={wrong.includes(i.id) ? "error" : ""}
              suffix={preferredUnit(i.unit, units)}
              maxLength={20}
              inputMode={preferredUnit(i.unit, units) === "AWG" ? "text" : "decimal"}
              aria-invalid={wrong.includes(i.id)}
              onChange={(e) => setTexts({ ...texts, [i.id]: e.target.value })}
            />
          </label>
        ))}
      </div>
      <dl className={styles.results} aria-live="polite">
        {wrong.length ? (
          <div>
            <dt>{t("calculators.check")}</dt>
            <dd>
              {wrong
                .map((w) => {
                  const i = c.inputs.find((x) => x.id === w)!;
                  const between = t("calculators.to", {
                    typed: typed(i.low, i.unit, units),
                    typed2: typed(i.high, i.unit, units),
                  });
                  return `${words.names[w]}: ${between} ${preferredUnit(i.unit, units)}`;
                })
                .join("; ")}
            </dd>
          </div>
        ) : outputs.length === 0 ? (
          <div>
            <dt>{t("calculators.check")}</dt>
            <dd>{t("calculators.nothingFollowsFromTheseValues")}</dd>
          </div>
        ) : (
          outputs.map((o, n) => (
            <div key={o.id} data-first={n === 0}>
              <dt>{words.names[o.id]}</dt>
              <dd className="mono">{shown(o.value, o.unit, units)}</dd>
            </div>
          ))
        )}
      </dl>
      {curve ? <CurveChart curve={curve} names={words.names} units={units} /> : null}
      <p className={styles.formula}>
        <span className="mono">{words.formula}</span> <small>{words.source}</small>
      </p>
    </section>
  );
}
const plain = (x: number) =>
  Math.abs(x) >= 1e6 ? `${x / 1e6}M` : Math.abs(x) >= 10_000 ? `${x / 1e3}k` : String(Number(x.toPrecision(6)));
/** A stored value as it is typed in the units of this person. */
const typed = (value: number, unit: string, units: Units) =>
  preferredUnit(unit, units) === unit ? plain(value) : preferredText(value, unit, units);
const shown = (value: number, unit: string, units: Units) =>
  unit === "V" || unit === "Ω" || unit === "A"
    ? formatQuantity(value, unit)
    : `${Number(toPreferred(value, unit, units).toPrecision(3))} ${preferredUnit(unit, units)}`;
