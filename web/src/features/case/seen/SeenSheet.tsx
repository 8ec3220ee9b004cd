"use client";
import {
  coloursAt,
  compareSeen,
  drawnPartNumber,
  judgePartNumber,
  parseColour,
  type SeenEntry,
  type Wiring,
} from "@radicula/core";
import { Button, Input, InputNumber, Select } from "antd";
import { useMemo, useState } from "react";
import { WireSwatch } from "@/ui/WireSwatch";
import { connectorChoices } from "../choices";
import { Sheet } from "../Sheet";
import styles from "./Seen.module.css";

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
    <Sheet open={p.open} onClose={p.onClose} title="Seen on the machine" width={620}>
      <Body {...p} />
    </Sheet>
  );
}

function Body({ wiring, connector: first, onLog }: Props) {
  const [id, setId] = useState<string | undefined>(first);
  const [colours, setColours] = useState<Readonly<Record<string, string>>>({});
  const [cavities, setCavities] = useState<number | null>(null);
  const [partNumber, setPartNumber] = useState("");
  const choices = useMemo(() => connectorChoices(wiring), [wiring]);
  const connector = wiring.connectors.find((c) => c.id === id);
  const drawn = useMemo(() => (id ? coloursAt(wiring, id) : new Map<string, string>()), [wiring, id]);
  const typed = Object.entries(colours)
    .filter(([, c]) => c.trim() !== "")
    .map(([cavity, colour]) => ({ cavity, colour: colour.trim() }));
  const entry: SeenEntry | undefined =
    connector && (typed.length || cavities || partNumber.trim())
      ? {
          type: "seen",
          at: new Date().toISOString(),
          connector: connector.id,
          colours: typed,
          ...(cavities ? { cavities } : {}),
          ...(partNumber.trim() ? { partNumber: partNumber.trim() } : {}),
        }
      : undefined;
  const mismatch = entry ? compareSeen(wiring, entry) : undefined;
  const number = connector && drawnPartNumber(wiring, connector.id);
  const asGood =
    connector && partNumber.trim() !== "" && judgePartNumber(wiring, connector.id, partNumber) === "asGood";
  return (
    <div className={styles.sheet}>
      <Select
        aria-label="Connector"
        placeholder="Which connector?"
        autoFocus
        value={id}
        showSearch={{ optionFilterProp: "label" }}
        onChange={(v: string) => {
          setId(v);
          setColours({});
          setCavities(null);
          setPartNumber("");
        }}
        options={choices}
      />
      {connector ? (
        <>
          {connector.lookAlikes?.length ? (
            <p className={styles.warn}>
              Looks like {connector.lookAlikes.join(", ")}: check the number before testing.
            </p>
          ) : null}
          <div className={styles.table}>
            <table>
              <thead>
                <tr>
                  <th>Cavity</th>
                  <th>Drawn</th>
                  <th>On the machine</th>
                </tr>
              </thead>
              <tbody>
                {connector.cavities.map((c) => {
                  const read = parseColour(colours[c] ?? "");
                  const text = (colours[c] ?? "").trim();
                  return (
                    <tr key={c} data-differs={mismatch?.colours.some((x) => x.cavity === c) ?? false}>
                      <td className="mono">{c}</td>
                      <td>
                        {drawn.get(c) ? (
                          <WireSwatch colour={drawn.get(c)!} />
                        ) : (
                          <span className="muted">not drawn</span>
                        )}
                      </td>
                      <td>
                        <Input
                          size="small"
                          aria-label={`Colour seen in cavity ${c}`}
                          value={colours[c] ?? ""}
                          maxLength={20}
                          placeholder="as drawn"
                          style={{ width: 120 }}
                          onChange={(e) => setColours((m) => ({ ...m, [c]: e.target.value }))}
                        />{" "}
                        {text && read.status === "read" ? (
                          <WireSwatch colour={text} />
                        ) : text ? (
                          <span className="muted">not a colour known here; kept as typed</span>
                        ) : null}
                      </td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
          <div className={styles.row}>
            <label>
              Cavities
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
              Part number
              <Input
                value={partNumber}
                maxLength={60}
                placeholder={number ?? "none drawn"}
                style={{ width: 200 }}
                onChange={(e) => setPartNumber(e.target.value)}
              />
            </label>
          </div>
          {asGood ? (
            <p role="status">
              {partNumber.trim()} and {number} replace each other: the right part.
            </p>
          ) : null}
          {mismatch ? (
            <p role="alert" className={styles.warn}>
              <b>Not as drawn.</b> Either the drawing is of another build, or this is not {connector.id}
              {mismatch.fits.length ? (
                <>
                  : <b>{mismatch.fits.join(" or ")}</b> fits better
                </>
              ) : null}
              . Settle that before testing here.
            </p>
          ) : entry ? (
            <p className={styles.good}>As drawn.</p>
          ) : null}
        </>
      ) : null}
      <Button type="primary" size="large" block disabled={!entry} onClick={() => entry && onLog(entry)}>
        Log what stands there
      </Button>
    </div>
  );
}
