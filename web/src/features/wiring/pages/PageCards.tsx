"use client";
import {
  boxToTake,
  cavitiesInBox,
  functionSaid,
  isNamedBox,
  markAt,
  sidedCavities,
  takeBox,
  takeCavity,
  takeReadWire,
  takeStar,
  takeWire,
  type Chart,
  type DrawingSheet,
  type ReadEnd,
  type ReadSheet,
  type ReadWire,
  type TakenBox,
} from "@radicula/core";
import { worded } from "@radicula/core/words";
import { Button, Checkbox, Input, InputNumber, Segmented } from "antd";
import { useState, type ReactNode } from "react";
import type { Page } from "@/ui/page/fetchPage";
import { wordsNear, type Tapped } from "./hit";
import { Suggestions } from "./Suggestions";
import styles from "./Pages.module.css";
import { t } from "@/messages";

interface CardProps {
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
}

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
  return <SpotCard key={tapped.at.join()} {...props} at={tapped.at} />;
}

/** Words that stand at what was tapped. */
function Words({ sheet, page, tapped, onChoose }: CardProps & { readonly onChoose: (text: string) => void }) {
  if (!page?.content) return null;
  const words = wordsNear(page.content.words, tapped, Math.max(sheet.width, sheet.height) / 100);
  return <Suggestions sheet={sheet} page={page} words={words} onChoose={onChoose} />;
}

/** Enter takes it. */
function Form({
  title,
  canTake,
  onTake,
  take = t("paper.takeIt"),
  children,
}: {
  readonly title: string;
  readonly canTake: boolean;
  readonly onTake: () => void;
  readonly take?: string;
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
      <h2>{title}</h2>
      {children}
      <Button type="primary" htmlType="submit" disabled={!canTake} data-testid="take-it">
        {take}
      </Button>
    </form>
  );
}

const NAME = /^[\p{L}\p{N}][\p{L}\p{N}_+/-]{0,39}$/u;
const KINDS: Readonly<Record<TakenBox["kind"], string>> = worded(() => ({
  connector: t("paper.connector"),
  module: t("paper.module"),
  inline: t("paper.inline"),
  fuse: t("paper.fuse"),
  battery: t("paper.battery"),
}));
const KIND_LIST = ["connector", "module", "inline", "fuse"] as const;
const BATTERY_LIST = [...KIND_LIST, "battery"] as const;

function BoxCard({ sheet, box, onChart, onTap }: CardProps & { readonly box: TakenBox }) {
  const [id, setId] = useState(box.id);
  const [kind, setKind] = useState<TakenBox["kind"]>(box.kind);
  const [title, setTitle] = useState(box.title);
  const [cavities, setCavities] = useState(box.pins.map((p) => p.cavity).join(" "));
  const names = cavities.split(/[\s,;]+/).filter(Boolean);
  const isRight = NAME.test(id.trim()) && names.length === box.pins.length && new Set(names).size === names.length;
  return (
    <Form
      title={KINDS[kind]}
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
          label: KINDS[k],
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

/** A box drawn by hand: its cavities are numbered by rule. */
function AreaCard(props: CardProps & { readonly area: Tapped & { kind: "area" } }) {
  const { area, sheet, onChart, onTap } = props;
  const [id, setId] = useState("");
  const [kind, setKind] = useState<TakenBox["kind"]>("connector");
  const [count, setCount] = useState(3);
  const [rows, setRows] = useState(area.height > area.width ? count : 1);
  const [isReversed, setReversed] = useState(false);
  return (
    <Form
      title={KINDS[kind]}
      canTake={NAME.test(id.trim())}
      onTake={() => {
        const pins = cavitiesInBox(area, { count, rows, isReversed }).map((p) => ({ ...p, function: "" }));
        const { x, y, width, height } = area;
        onChart((c) => takeBox(c, sheet, { id: id.trim().toUpperCase(), kind, title: "", x, y, width, height, pins }));
        onTap(undefined);
      }}
    >
      <label>
        {t("paper.name")}
        <Input value={id} maxLength={40} autoFocus onChange={(e) => setId(e.target.value)} />
      </label>
      <Words {...props} onChoose={setId} />
      <Segmented
        size="small"
        value={kind}
        onChange={setKind}
        options={KIND_LIST.map((k) => ({ value: k, label: KINDS[k] }))}
      />
      <div className={styles.pair}>
        <label>
          {t("paper.howManyCavities")}
          <InputNumber min={1} max={200} precision={0} value={count} onChange={(n) => setCount(n ?? 1)} />
        </label>
        <label>
          {t("paper.inRows")}
          <InputNumber min={1} max={count} precision={0} value={rows} onChange={(n) => setRows(n ?? 1)} />
        </label>
      </div>
      <Checkbox checked={isReversed} onChange={(e) => setReversed(e.target.checked)}>
        {t("paper.countedFromTheEnd")}
      </Checkbox>
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

const SPOTS = ["cavity", "splice", "ground"] as const;
const SPOT_NAMES: Readonly<Record<(typeof SPOTS)[number], string>> = worded(() => ({
  cavity: t("paper.cavity"),
  splice: t("paper.splice"),
  ground: t("paper.ground"),
}));

/** A bare place: a cavity, a splice or a ground that the page does not show as one. */
function SpotCard(props: CardProps & { readonly at: readonly [number, number] }) {
  const { chart, sheet, at, from, onChart, onFrom, onTap } = props;
  const [kind, setKind] = useState<(typeof SPOTS)[number]>("cavity");
  const last = chart.pages.marks.filter((m) => m.at.includes(":")).at(-1)?.at ?? "";
  const [name, setName] = useState(nextCavity(last));
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
      <Words {...props} onChoose={setName} />
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
function MarkCard({ chart, sheet, tapped, at, from, onChart, onFrom, onTap }: CardProps & { readonly at: string }) {
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
