"use client";
import {
  coloursAt,
  compareSeen,
  drawnPartNumber,
  judgePartNumber,
  parseColour,
  type Connector,
  type SeenEntry,
  type Wiring,
} from "@radicula/core";
import { Button, Input, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { WireSwatch } from "@/ui/WireSwatch";
import { connectorChoices } from "../choices";
import { Sheet } from "../Sheet";
import styles from "./Seen.module.css";
import { t } from "@/messages";

interface Props {
  readonly open: boolean;
  readonly wiring: Wiring;
  readonly connector: string | undefined;
  readonly onLog: (entry: SeenEntry) => void;
  readonly onClose: () => void;
}

/** What stands on the machine against what is drawn: wire colours, how many cavities, the number on the part. */
export function SeenSheet(p: Props) {
  return (
    <Sheet open={p.open} onClose={p.onClose} title={t("seen.seenOnTheMachine")} width={620} keeps>
      <SeenForm {...p} />
    </Sheet>
  );
}

/** What was seen so far, and what that says against the drawing. */
function useSeen({ wiring, connector: first }: Props) {
  const [id, setId] = useState<string | undefined>(first);
  const [colours, setColours] = useState<Readonly<Record<string, string>>>({});
  const [cavities, setCavities] = useState<number | null>(null);
  const [typedNumber, setPartNumber] = useState("");
  const partNumber = typedNumber.trim();
  const connector = wiring.connectors.find((c) => c.id === id);
  const typed = Object.entries(colours)
    .filter(([, c]) => c.trim() !== "")
    .map(([cavity, colour]) => ({ cavity, colour: colour.trim() }));
  const entry: SeenEntry | undefined =
    connector && (typed.length || cavities || partNumber)
      ? {
          type: "seen",
          at: new Date().toISOString(),
          connector: connector.id,
          colours: typed,
          ...(cavities ? { cavities } : {}),
          ...(partNumber ? { partNumber } : {}),
        }
      : undefined;
  return {
    wiring,
    id,
    choose: (v: string) => {
      setId(v);
      setColours({});
      setCavities(null);
      setPartNumber("");
    },
    connector,
    colours,
    setColour: (cavity: string, colour: string) => setColours((m) => ({ ...m, [cavity]: colour })),
    cavities,
    setCavities,
    partNumber,
    typedNumber,
    setPartNumber,
    entry,
    mismatch: entry && compareSeen(wiring, entry),
    drawnNumber: connector && drawnPartNumber(wiring, connector.id),
  };
}
type Seen = ReturnType<typeof useSeen>;
interface PartProps {
  readonly seen: Seen;
  readonly connector: Connector;
}

function SeenForm(p: Props) {
  const seen = useSeen(p);
  const { connector, entry } = seen;
  const choices = useMemo(() => connectorChoices(p.wiring), [p.wiring]);
  return (
    <div className={styles.sheet}>
      <Select
        aria-label={t("seen.connector")}
        placeholder={t("seen.whichConnector")}
        autoFocus
        value={seen.id}
        showSearch={{ optionFilterProp: "label" }}
        onChange={seen.choose}
        options={choices}
      />
      {connector ? (
        <>
          {connector.lookAlikes?.length ? (
            <p className={styles.warn}>
              {t("seen.looksLikeCheckTheNumberBefore", { lookAlikes: connector.lookAlikes.join(", ") })}
            </p>
          ) : null}
          <Colours seen={seen} connector={connector} />
          <Counts seen={seen} connector={connector} />
          <Judged seen={seen} connector={connector} />
        </>
      ) : null}
      <Button type="primary" size="large" block disabled={!entry} onClick={() => entry && p.onLog(entry)}>
        {t("seen.logWhatStandsThere")}
      </Button>
    </div>
  );
}

function Colours({ seen, connector }: PartProps) {
  const drawn = useMemo(() => coloursAt(seen.wiring, connector.id), [seen.wiring, connector.id]);
  return (
    <div className={styles.table}>
      <table>
        <thead>
          <tr>
            <th>{t("seen.cavity")}</th>
            <th>{t("seen.drawn")}</th>
            <th>{t("seen.onTheMachine")}</th>
          </tr>
        </thead>
        <tbody>
          {connector.cavities.map((c) => (
            <ColourRow key={c} seen={seen} cavity={c} drawn={drawn.get(c)} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function ColourRow({
  seen,
  cavity: c,
  drawn,
}: Pick<PartProps, "seen"> & { readonly cavity: string; readonly drawn: string | undefined }) {
  const { colours, setColour, mismatch } = seen;
  const text = (colours[c] ?? "").trim();
  const read = parseColour(text);
  return (
    <tr data-differs={mismatch?.colours.some((x) => x.cavity === c) ?? false}>
      <td className="mono">{c}</td>
      <td>{drawn ? <WireSwatch colour={drawn} /> : <span className="muted">{t("seen.notDrawn")}</span>}</td>
      <td>
        <Input
          size="small"
          aria-label={t("seen.colourSeenInCavity", { c })}
          value={colours[c] ?? ""}
          maxLength={20}
          placeholder={t("seen.asDrawn")}
          style={{ width: 120 }}
          onChange={(e) => setColour(c, e.target.value)}
        />{" "}
        {text && read.status === "read" ? (
          <WireSwatch colour={text} />
        ) : text ? (
          <span className="muted">{t("seen.notAColourKnownHereKept")}</span>
        ) : null}
      </td>
    </tr>
  );
}

function Counts({ seen, connector }: PartProps) {
  const { cavities, setCavities, typedNumber, setPartNumber, drawnNumber } = seen;
  return (
    <div className={styles.row}>
      <label>
        {t("seen.cavities")}
        <InputNumber
          min={1}
          max={400}
          value={cavities}
          placeholder={String(connector.cavities.length)}
          style={{ width: 90 }}
          onChange={setCavities}
        />
      </label>
      <label>
        {t("seen.partNumber")}
        <Input
          value={typedNumber}
          maxLength={60}
          placeholder={drawnNumber ?? t("seen.noneDrawn")}
          style={{ width: 200 }}
          onChange={(e) => setPartNumber(e.target.value)}
        />
      </label>
    </div>
  );
}

function Judged({ seen, connector }: PartProps) {
  const { wiring, partNumber, drawnNumber, mismatch, entry } = seen;
  const asGood = partNumber !== "" && judgePartNumber(wiring, connector.id, partNumber) === "asGood";
  return (
    <>
      {asGood ? <p role="status">{t("seen.andReplaceEachOtherTheRight", { partNumber, drawnNumber })}</p> : null}
      {mismatch ? (
        <p role="alert" className={styles.warn}>
          <b>{t("seen.notAsDrawn")}</b> {t("seen.eitherTheDrawingIsOfAnother", { id: connector.id })}
          {mismatch.fits.length ? (
            <>
              : <b>{mismatch.fits.join(t("seen.orJoin"))}</b> {t("seen.fitsBetter")}
            </>
          ) : null}
          {t("seen.settleThatBeforeTestingHere")}
        </p>
      ) : entry ? (
        <p className={styles.good}>{t("seen.asDrawn2")}</p>
      ) : null}
    </>
  );
}
