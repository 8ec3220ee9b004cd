"use client";
import { HistoryLine, BulletinLine } from "./IntakeLines";
import {
  fromPreferred,
  INTAKE_CHOICES,
  toPreferred,
  type Feed,
  type HistoryItem,
  type Intake,
  type Wiring,
} from "@radicula/core";
import { useUnits } from "@/ui/Units";
import { CAUTION_WORDS, CHOICE_WORDS, feedText, worded } from "@radicula/core/words";
import { Button, Input, InputNumber, Select } from "antd";
import { useEffect, useMemo, useState, type KeyboardEvent } from "react";
import { Chips } from "@/ui/Chips";
import { partChoices, thingChoices, type Choice } from "../choices";
import { Sheet } from "../Sheet";
import styles from "./Intake.module.css";
import { t } from "@/messages";

type Safety = Intake["safety"][number];
const WHATS = Object.keys(CHOICE_WORDS.history) as HistoryItem["what"][];
const SAFETY = Object.keys(CAUTION_WORDS) as Safety[];
const SAFETY_SHORT: Readonly<Record<Safety, string>> = worded(() => ({
  restraint: t("intake.airbagsBelts"),
  highVoltage: t("intake.highVoltage"),
  fuel: t("intake.fuelHighPressure"),
  hot: t("intake.hotParts"),
  rotating: t("intake.rotatingParts"),
  throttle: t("intake.throttleCircuit"),
  brake: t("intake.brakeCircuit"),
  lifted: t("intake.liftedMachine"),
}));
interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly intake: Intake;
  readonly feedsOf: (intake: Intake) => Promise<readonly Feed[]>;
  readonly onLog: (intake: Intake) => void;
  readonly onClose: () => void;
}

/**
 * What the customer says, what was done before, what is at hand. What each answer does to the suspects stands beside
 * it.
 */
export function IntakeSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("intake.intake")} width={1080} keeps>
      <IntakeForm {...p} />
    </Sheet>
  );
}

type Put = (change: { [K in keyof Intake]?: Intake[K] | undefined }) => void;
interface PartProps {
  readonly intake: Intake;
  readonly put: Put;
}

/** The intake as it is being put together; what is emptied is taken out. */
function useIntakeDraft(first: Intake) {
  const [intake, setIntake] = useState<Intake>(first);
  const put: Put = (change) =>
    setIntake((i) => {
      const next = { ...i, ...change };
      for (const k of Object.keys(change) as (keyof Intake)[])
        if (next[k] === undefined || next[k] === "") delete next[k];
      return next as Intake;
    });
  return { intake, put };
}

function IntakeForm({ wiring, intake: first, feedsOf, onLog }: Props) {
  const { intake, put } = useIntakeDraft(first);
  const things = useMemo(() => thingChoices(wiring), [wiring]);
  const log = () =>
    onLog({
      ...intake,
      history: intake.history.filter((h) => h.at.length || h.text || h.what !== "replaced"),
      bulletins: intake.bulletins.filter((b) => b.text.trim() !== ""),
    });
  const onKey = (e: KeyboardEvent) => {
    if (e.key !== "Enter" || !(e.ctrlKey || e.metaKey)) return;
    e.preventDefault();
    log();
  };
  return (
    <div className={styles.sheet} onKeyDown={onKey}>
      <div className={styles.form}>
        <label>
          {t("intake.whatTheCustomerSays")}
          <Input.TextArea
            autoFocus
            value={intake.complaint ?? ""}
            maxLength={4000}
            autoSize={{ minRows: 2, maxRows: 6 }}
            onChange={(e) => put({ complaint: e.target.value })}
          />
        </label>
        <Machine intake={intake} put={put} wiring={wiring} />
        <WhatItDoes intake={intake} put={put} />
        <Before intake={intake} put={put} things={things} />
        <Hearsay intake={intake} put={put} things={things} />
        <AtHand intake={intake} put={put} wiring={wiring} />
        <fieldset>
          <legend>{t("intake.dangersOfThisMachine")}</legend>
          <Chips
            label={t("intake.dangers")}
            choices={SAFETY}
            words={SAFETY_SHORT}
            value={intake.safety}
            onChange={(safety) => put({ safety })}
          />
        </fieldset>
      </div>
      <WhatThisChanges intake={intake} feedsOf={feedsOf} onLog={log} />
    </div>
  );
}

function Machine({ intake, put, wiring }: PartProps & Pick<Props, "wiring">) {
  const units = useUnits();
  return (
    <>
      <div className={styles.cells}>
        <label>
          {t("intake.machine")}
          <Input
            value={intake.kind ?? ""}
            maxLength={120}
            placeholder={t("intake.kindOfMachine")}
            onChange={(e) => put({ kind: e.target.value })}
          />
        </label>
        <label>
          {t("intake.serial")}
          <Input value={intake.serial ?? ""} maxLength={60} onChange={(e) => put({ serial: e.target.value })} />
        </label>
        <label>
          {t("intake.hours")}
          <InputNumber
            value={intake.hours ?? null}
            min={0}
            max={1e6}
            suffix="h"
            style={{ width: "100%" }}
            onChange={(v) => put({ hours: v ?? undefined })}
          />
        </label>
        <label>
          {t("intake.distance")}
          <InputNumber
            value={intake.distanceKm === undefined ? null : Math.round(toPreferred(intake.distanceKm, "km", units))}
            min={0}
            max={1e7}
            suffix={units.distance}
            style={{ width: "100%" }}
            onChange={(v) => put({ distanceKm: v === null ? undefined : fromPreferred(String(v), "km", units) })}
          />
        </label>
        <label>
          {t("intake.battery")}
          <Select
            aria-label={t("intake.nominalVoltage")}
            value={intake.nominalVolt ?? wiring.nominalVolt}
            onChange={(v: 12 | 24) => put({ nominalVolt: v })}
            options={[
              { value: 12, label: "12 V" },
              { value: 24, label: "24 V" },
            ]}
          />
        </label>
      </div>
      {intake.nominalVolt !== undefined && intake.nominalVolt !== wiring.nominalVolt ? (
        <p role="alert" className={styles.warn}>
          {t("intake.theWiringIsOfAV", { nominalVolt: wiring.nominalVolt })}
        </p>
      ) : null}
    </>
  );
}

function WhatItDoes({ intake, put }: PartProps) {
  return (
    <>
      <fieldset>
        <legend>{t("intake.whatItDoes")}</legend>
        <Chips
          label={t("intake.symptoms")}
          choices={INTAKE_CHOICES.symptoms}
          words={CHOICE_WORDS.symptoms}
          value={intake.symptoms}
          onChange={(symptoms) => put({ symptoms })}
        />
      </fieldset>
      <fieldset>
        <legend>{t("intake.when")}</legend>
        <Chips
          label={t("intake.conditions")}
          choices={INTAKE_CHOICES.conditions}
          words={CHOICE_WORDS.conditions}
          value={intake.conditions}
          onChange={(conditions) => put({ conditions })}
        />
        {intake.conditions.includes("afterTime") ? (
          <label className={styles.inline}>
            {t("intake.after")}{" "}
            <InputNumber
              value={intake.afterMinutes ?? null}
              min={0}
              max={10_000}
              suffix="min"
              onChange={(v) => put({ afterMinutes: v ?? undefined })}
            />
          </label>
        ) : null}
      </fieldset>
    </>
  );
}

function Before({ intake, put, things }: PartProps & { readonly things: readonly Choice[] }) {
  const add = (what: HistoryItem["what"]) =>
    put({ history: [...intake.history, { what, at: [], helped: "unknown", brand: "unknown" }] });
  return (
    <fieldset>
      <legend>{t("intake.whatWasDoneOrHappenedBefore")}</legend>
      {intake.history.map((h, i) => (
        <HistoryLine
          key={i}
          item={h}
          things={things}
          onSet={(item) => put({ history: intake.history.map((x, j) => (j === i ? item : x)) })}
          onDrop={() => put({ history: intake.history.filter((_, j) => j !== i) })}
        />
      ))}
      <div className={styles.adds}>
        {WHATS.map((what) => (
          <button key={what} type="button" onClick={() => add(what)}>
            + {CHOICE_WORDS.history[what]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

function Hearsay({ intake, put, things }: PartProps & { readonly things: readonly Choice[] }) {
  return (
    <fieldset>
      <legend>{t("intake.bulletinsAndHearsay")}</legend>
      {intake.bulletins.map((b, i) => (
        <BulletinLine
          key={i}
          item={b}
          things={things}
          onSet={(item) => put({ bulletins: intake.bulletins.map((x, j) => (j === i ? item : x)) })}
          onDrop={() => put({ bulletins: intake.bulletins.filter((_, j) => j !== i) })}
        />
      ))}
      <div className={styles.adds}>
        <button
          type="button"
          onClick={() => put({ bulletins: [...intake.bulletins, { text: "", at: [], trust: "hearsay" }] })}
        >
          {t("intake.somethingSaidOfMachinesLikeThis")}
        </button>
      </div>
    </fieldset>
  );
}

function AtHand({ intake, put, wiring }: PartProps & Pick<Props, "wiring">) {
  const parts = useMemo(() => partChoices(wiring), [wiring]);
  const tools = intake.tools ?? [...INTAKE_CHOICES.tools];
  return (
    <fieldset>
      <legend>{t("intake.atHand")}</legend>
      <Chips
        label={t("intake.tools")}
        choices={INTAKE_CHOICES.tools}
        words={CHOICE_WORDS.tools}
        value={tools}
        onChange={(v) => put({ tools: v.length === INTAKE_CHOICES.tools.length ? undefined : v })}
      />
      {tools.includes("meter") ? null : (
        <p role="alert" className={styles.warn}>
          {t("intake.withoutAMeterNoReadingCan")}
        </p>
      )}
      <label>
        {t("intake.valuesTheScanToolCanShow")}
        <Select
          mode="multiple"
          placeholder={t("intake.allOfThem")}
          value={intake.scanShows ?? []}
          showSearch={{ optionFilterProp: "label" }}
          onChange={(v: string[]) => put({ scanShows: v.length ? v : undefined })}
          options={parts}
        />
      </label>
    </fieldset>
  );
}

function WhatThisChanges({
  intake,
  feedsOf,
  onLog,
}: Pick<Props, "feedsOf"> & { readonly intake: Intake; readonly onLog: () => void }) {
  const [feeds, setFeeds] = useState<readonly Feed[]>([]);
  useEffect(() => {
    let stopped = false;
    feedsOf(intake).then(
      (f) => {
        if (!stopped) setFeeds(f);
      },
      () => undefined,
    );
    return () => {
      stopped = true;
    };
  }, [intake, feedsOf]);
  return (
    <aside className={styles.feeds} aria-label={t("intake.whatThisChanges")} aria-live="polite">
      <h3>{t("intake.whatThisChanges")}</h3>
      {feeds.length === 0 ? (
        <p className="muted">{t("intake.nothingYetEveryFaultCountsAs")}</p>
      ) : (
        <ul>
          {feeds.map((f, i) => (
            <li key={i}>{feedText(f)}</li>
          ))}
        </ul>
      )}
      {intake.safety.length ? (
        <>
          <h3>{t("intake.beforeEveryStep")}</h3>
          <ul className={styles.dangers}>
            {intake.safety.map((s) => (
              <li key={s}>{CAUTION_WORDS[s]}</li>
            ))}
          </ul>
        </>
      ) : null}
      <Button type="primary" size="large" block onClick={onLog} title={t("intake.ctrlEnter")}>
        {t("intake.logTheIntake")}
      </Button>
    </aside>
  );
}
