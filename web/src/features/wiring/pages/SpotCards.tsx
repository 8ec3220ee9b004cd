"use client";
import { functionSaid, takeCavity, takeFuse, takeStar, takeWire, type Chart, type Spot } from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Button, Input, Segmented } from "antd";
import { useState } from "react";
import { Form, NAME, PageWords, type CardProps } from "./cardParts";
import { laid, marked, SPOTS, spotOf, type SpotKind } from "./hit";
import { t } from "@/messages";

export const SPOT_NAMES: Readonly<Record<SpotKind, string>> = worded(() => ({
  cavity: t("paper.cavity"),
  splice: t("paper.splice"),
  ground: t("paper.ground"),
  fuse: t("paper.fuse"),
}));

/** A bare place: a cavity, a splice, a ground or a fuse that the page does not show as one. */
export function SpotCard(props: CardProps & { readonly at: readonly [number, number] }) {
  const { chart, sheet, at, from, tapped, onChart, onFrom, onTap } = props;
  const [kind, setKind] = useState<SpotKind>((tapped.kind === "spot" ? tapped.as : undefined) ?? "cavity");
  const last = chart.pages.marks.filter((m) => m.at.includes(":")).at(-1)?.at ?? "";
  const [name, setName] = useState(kind === "cavity" ? nextCavity(last) : "");
  const [rating, setRating] = useState("");
  const named = name.trim().toUpperCase();
  const [connector = "", cavity = ""] = named.split(/[:.\s]+/);
  const isNamed = kind === "cavity" ? NAME.test(connector) && NAME.test(cavity) : named === "" || NAME.test(named);
  const isRight = isNamed && (kind !== "fuse" || RATING.test(rating.trim()));
  return (
    <Form
      title={SPOT_NAMES[kind]}
      canTake={isRight}
      onTake={() => {
        onChart((c) => {
          if (kind === "cavity")
            return joined(takeCavity(c, sheet, connector, cavity, at), `${connector}:${cavity}`, at);
          const id = named || undefined;
          if (kind === "fuse") {
            const fuse = takeFuse(c, sheet, { id, rating, at });
            const end = nearestTo(from ? marked(c, sheet, from) : undefined, fuse.ends);
            return joined(fuse.chart, end.name, end.at);
          }
          const star = takeStar(c, sheet, { id, kind, at });
          return joined(star.chart, star.id, at);
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
      {kind === "fuse" ? (
        <label>
          {t("paper.ratingA")}
          <Input value={rating} maxLength={6} inputMode="decimal" onChange={(e) => setRating(e.target.value)} />
        </label>
      ) : null}
      <PageWords {...props} onChoose={setName} />
      {from ? <p>{t("paper.wireFrom", { from })}</p> : null}
    </Form>
  );
  function joined(c: Chart, to: string, end: Spot): Chart {
    const begin = from ? marked(c, sheet, from) : undefined;
    if (!from || !begin) return c;
    const points = laid(begin, end, tapped.kind === "spot" ? tapped.along : undefined);
    return takeWire(c, sheet, { from, to, colour: "", mm2: "", points });
  }
}
/** The end of a fuse that a wire comes to: the one that lies nearer. */
function nearestTo<T extends { readonly at: Spot }>(from: Spot | undefined, ends: readonly T[]): T {
  const far = ({ at }: T) => (from ? Math.hypot(at[0] - from[0], at[1] - from[1]) : 0);
  return [...ends].sort((a, b) => far(a) - far(b))[0]!;
}
/** A number of amperes, or nothing. */
const RATING = /^(\d+([.,]\d+)?)?$/;
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
  const begin = from === undefined || from === at ? undefined : marked(chart, sheet, from);
  const start = begin && from ? { at: from, spot: begin } : undefined;
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
        const points = laid(start.spot, spotOf(mark), tapped.along);
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
