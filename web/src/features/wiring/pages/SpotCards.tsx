"use client";
import { functionSaid, takeCavity, takeStar, takeWire, type Chart } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Button, Input, Segmented } from "antd";
import { useState } from "react";
import { Form, NAME, PageWords, type CardProps } from "./cardParts";
import { SPOTS, type SpotKind } from "./hit";
import { t } from "@/messages";

export const SPOT_NAMES: Readonly<Record<SpotKind, string>> = worded(() => ({
  cavity: t("paper.cavity"),
  splice: t("paper.splice"),
  ground: t("paper.ground"),
}));

/** A bare place: a cavity, a splice or a ground that the page does not show as one. */
export function SpotCard(props: CardProps & { readonly at: readonly [number, number] }) {
  const { chart, sheet, at, from, tapped, onChart, onFrom, onTap } = props;
  const [kind, setKind] = useState<SpotKind>((tapped.kind === "spot" ? tapped.as : undefined) ?? "cavity");
  const last = chart.pages.marks.filter((m) => m.at.includes(":")).at(-1)?.at ?? "";
  const [name, setName] = useState(kind === "cavity" ? nextCavity(last) : "");
  const [connector = "", cavity = ""] = name
    .trim()
    .toUpperCase()
    .split(/[:.\s]+/);
  const isRight =
    kind === "cavity" ? NAME.test(connector) && NAME.test(cavity) : name.trim() === "" || NAME.test(name.trim());
  return (
    <Form
      title={SPOT_NAMES[kind]}
      canTake={isRight}
      onTake={() => {
        let id = `${connector}:${cavity}`;
        onChart((c) => {
          if (kind === "cavity") return joined(takeCavity(c, sheet, connector, cavity, at), id);
          const made = takeStar(c, sheet, { id: name.trim().toUpperCase() || undefined, kind, at });
          id = made.id;
          return joined(made.chart, id);
        });
        onFrom(undefined);
        onTap(undefined);
      }}
    >
      <Segmented
        size="small"
        value={kind}
        onChange={(k) => {
          setKind(k);
          setName(k === "cavity" ? nextCavity(last) : "");
        }}
        options={SPOTS.map((k) => ({ value: k, label: SPOT_NAMES[k] }))}
      />
      <label>
        {kind === "cavity" ? t("paper.connectorAndCavity") : t("paper.name")}
        <Input
          value={name}
          maxLength={80}
          autoFocus
          placeholder={kind === "cavity" ? "B7:1" : t("paper.nextFree")}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <PageWords {...props} onChoose={setName} />
      {from ? <p>{t("paper.wireFrom", { from })}</p> : null}
    </Form>
  );
  function joined(c: Chart, to: string): Chart {
    if (!from) return c;
    const start = c.pages.marks.find((m) => m.at === from && m.sheet === sheet.id);
    if (!start) return c;
    return takeWire(c, sheet, { from, to, colour: "", mm2: "", points: [[start.x, start.y], at] });
  }
}
/** B7:1 is followed by B7:2. */
function nextCavity(last: string): string {
  const m = /^(.+:)(\d+)$/.exec(last);
  return m ? `${m[1]}${Number(m[2]) + 1}` : "";
}

/** Something marked already: a wire is laid from it, or the mark is taken off the page. */
export function MarkCard({
  chart,
  sheet,
  tapped,
  at,
  from,
  onChart,
  onFrom,
  onTap,
}: CardProps & { readonly at: string }) {
  const [colour, setColour] = useState("");
  if (tapped.kind !== "mark") return null;
  const { mark } = tapped;
  const start =
    from === undefined || from === at
      ? undefined
      : chart.pages.marks.find((m) => m.at === from && m.sheet === sheet.id);
  const said = chart.rows.find(
    (r) => functionSaid(r.function) && `${r.connector}:${r.cavity}`.toUpperCase() === at.toUpperCase(),
  );
  return (
    <Form
      title={start ? t("paper.wireBetween", { from: start.at, to: at }) : at}
      take={start ? t("paper.takeIt") : t("paper.wireFromHere")}
      canTake
      onTake={() => {
        if (!start) {
          onFrom(at);
          onTap(undefined);
          return;
        }
        const points = [[start.x, start.y] as const, [mark.x, mark.y] as const];
        onChart((c) =>
          takeWire(c, sheet, { from: start.at, to: at, colour: colour.trim().toUpperCase(), mm2: "", points }),
        );
        onFrom(undefined);
        onTap(undefined);
      }}
    >
      {said ? <p>{said.function}</p> : null}
      {start ? (
        <label>
          {t("paper.colour")}
          <Input value={colour} maxLength={20} autoFocus onChange={(e) => setColour(e.target.value)} />
        </label>
      ) : (
        <Button
          type="text"
          onClick={() => {
            onChart((c) => ({ ...c, pages: { ...c.pages, marks: c.pages.marks.filter((m) => m !== mark) } }));
            onTap(undefined);
          }}
        >
          {t("paper.takeTheMarkOff")}
        </Button>
      )}
    </Form>
  );
}
