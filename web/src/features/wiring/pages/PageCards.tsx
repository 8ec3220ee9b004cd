"use client";
import {
  boxToTake,
  isNamedBox,
  markAt,
  sidedCavities,
  takeBox,
  takeReadWire,
  takeStar,
  type Chart,
  type DrawingSheet,
  type ReadEnd,
  type ReadSheet,
  type ReadWire,
  type TakenBox,
} from "@radicula/core";
import { Button, Input, Segmented } from "antd";
import { useState } from "react";
import { AreaCard } from "./AreaCard";
import { BATTERY_LIST, Form, BOX_KINDS, KIND_LIST, NAME, type CardProps } from "./cardParts";
import { MarkCard, SpotCard } from "./SpotCards";
import styles from "./Pages.module.css";
import { t } from "@/messages";

/** What was tapped, with its names to be put right, and one button that takes it into the chart. */
export function PageCard(props: CardProps) {
  const { tapped, read } = props;
  if (tapped.kind === "mark") return <MarkCard {...props} at={tapped.mark.at} />;
  if (tapped.kind === "star") {
    const star = read.stars[tapped.index];
    return star ? <StarCard {...props} star={star} /> : null;
  }
  if (tapped.kind === "wire") {
    const wire = read.wires[tapped.index];
    return wire ? <WireCard key={tapped.index} {...props} wire={wire} /> : null;
  }
  if (tapped.kind === "box") {
    const box = read.boxes[tapped.index];
    return box ? <BoxCard key={tapped.index} {...props} box={boxToTake(box)} /> : null;
  }
  if (tapped.kind === "area") return <AreaCard {...props} area={tapped} />;
  return <SpotCard key={`${tapped.at.join()} ${tapped.as ?? ""}`} {...props} at={tapped.at} />;
}

function BoxCard({ sheet, box, onChart, onTap }: CardProps & { readonly box: TakenBox }) {
  const [id, setId] = useState(box.id);
  const [kind, setKind] = useState<TakenBox["kind"]>(box.kind);
  const [title, setTitle] = useState(box.title);
  const [cavities, setCavities] = useState(box.pins.map((p) => p.cavity).join(" "));
  const names = cavities.split(/[\s,;]+/).filter(Boolean);
  const isRight = NAME.test(id.trim()) && names.length === box.pins.length && new Set(names).size === names.length;
  return (
    <Form
      title={BOX_KINDS[kind]}
      canTake={isRight}
      onTake={() => {
        const pins = box.pins.map((p, i) => ({ ...p, cavity: names[i]! }));
        onChart((c) => takeBox(c, sheet, { ...box, id: id.trim().toUpperCase(), kind, title: title.trim(), pins }));
        onTap(undefined);
      }}
    >
      <label>
        {t("paper.name")}
        <Input value={id} maxLength={40} autoFocus={box.id === ""} onChange={(e) => setId(e.target.value)} />
      </label>
      <Segmented
        size="small"
        value={kind}
        onChange={(k) => {
          setKind(k);
          // an in-line connector has each number twice: once at either side
          if (k === "inline") setCavities(sidedCavities(box).join(" "));
          else if (kind === "inline") setCavities(box.pins.map((p) => p.cavity).join(" "));
        }}
        options={(kind === "battery" ? BATTERY_LIST : KIND_LIST).map((k) => ({
          value: k,
          label: BOX_KINDS[k],
        }))}
      />
      <label>
        {t("paper.whatItIs")}
        <Input value={title} maxLength={200} onChange={(e) => setTitle(e.target.value)} />
      </label>
      <label>
        {t("paper.cavities", { count: box.pins.length })}
        <Input value={cavities} maxLength={2000} onChange={(e) => setCavities(e.target.value)} />
      </label>
      {names.length === box.pins.length ? null : (
        <p role="alert" className={styles.refused}>
          {t("paper.asManyNames", { count: box.pins.length })}
        </p>
      )}
    </Form>
  );
}

function StarCard({ sheet, star, onChart, onTap }: CardProps & { readonly star: ReadSheet["stars"][number] }) {
  const [id, setId] = useState(star.id ?? "");
  return (
    <Form
      title={star.kind === "splice" ? t("paper.splice") : t("paper.ground")}
      canTake={id.trim() === "" || NAME.test(id.trim())}
      onTake={() => {
        const name = id.trim().toUpperCase() || undefined;
        onChart((c) => takeStar(c, sheet, { ...star, id: name }).chart);
        onTap(undefined);
      }}
    >
      <label>
        {t("paper.name")}
        <Input value={id} maxLength={40} placeholder={t("paper.nextFree")} onChange={(e) => setId(e.target.value)} />
      </label>
    </Form>
  );
}

function endText(chart: Chart, sheet: DrawingSheet, read: ReadSheet, end: ReadEnd): string {
  const mark = markAt(chart, sheet, end.at);
  if (mark) return mark.at;
  const box = end.kind === "pin" ? read.boxes[end.of] : undefined;
  if (box) return `${box.id ?? t("paper.boxWithoutName")}:${box.pins[end.pin]?.cavity ?? ""}`;
  const star = end.kind === "star" ? read.stars[end.of] : undefined;
  if (star) return star.id ?? (star.kind === "splice" ? t("paper.splice") : t("paper.ground"));
  if (end.kind === "label") return t("paper.goesOnAs", { label: end.label });
  return end.kind === "tee" ? t("paper.anotherWire") : t("paper.nothing");
}

function WireCard({ chart, sheet, read, wire, onChart, onTap }: CardProps & { readonly wire: ReadWire }) {
  const [colour, setColour] = useState(wire.colour);
  const [mm2, setMm2] = useState(wire.mm2);
  const loose = wire.ends.find((e) => e.kind === "tee" || e.kind === "open");
  const isKnown = (end: ReadEnd) =>
    markAt(chart, sheet, end.at) !== undefined ||
    (end.kind === "pin" && isNamedBox(read.boxes[end.of])) ||
    end.kind === "star";
  const known = wire.ends.filter(isKnown).length;
  const canTake = known === 2 || (known === 1 && wire.ends.some((e) => e.kind === "label"));
  return (
    <Form
      title={t("paper.wireBetween", {
        from: endText(chart, sheet, read, wire.ends[0]),
        to: endText(chart, sheet, read, wire.ends[1]),
      })}
      canTake={canTake}
      onTake={() => {
        onChart((c) => takeReadWire(c, sheet, read, { ...wire, colour: colour.trim(), mm2: mm2.trim() }));
        onTap(undefined);
      }}
    >
      <div className={styles.pair}>
        <label>
          {t("paper.colour")}
          <Input value={colour} maxLength={20} onChange={(e) => setColour(e.target.value)} />
        </label>
        <label>
          {t("paper.section")}
          <Input value={mm2} maxLength={20} onChange={(e) => setMm2(e.target.value)} />
        </label>
      </div>
      {canTake ? null : <p>{t("paper.endsNotKnown")}</p>}
      {loose && !isKnown(loose) ? (
        <Button onClick={() => onTap({ kind: "spot", at: loose.at })}>
          {loose.kind === "tee" ? t("paper.theyAreJoined") : t("paper.whatIsThere")}
        </Button>
      ) : null}
    </Form>
  );
}
