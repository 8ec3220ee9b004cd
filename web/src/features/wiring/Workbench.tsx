"use client";
import { connectorOf } from "@radicula/core";
import type { InputRef } from "antd";
import dynamic from "next/dynamic";
import { useRef, useState } from "react";
import { Codes } from "./codes/Codes";
import { tidyRows } from "./edit";
import { withRow } from "./emptyRow";
import type { GridHandle } from "./grid/PinGrid";
import { Panel } from "./Panel";
import { PasteChart } from "./PasteChart";
import { PinsView } from "./PinsView";
import { Revisions } from "./Revisions";
import { Things } from "./Things";
import { useBench, type Bench, type BenchProps } from "./useBench";
import { useBenchKeys } from "./useBenchKeys";
import { keptDraft } from "./useDraft";
import styles from "./Workbench.module.css";
import { WorkbenchAlerts } from "./WorkbenchAlerts";
import { WorkbenchBar } from "./WorkbenchBar";
import { WorkbenchHead } from "./WorkbenchHead";

const DrawingView = dynamic(() => import("./drawing/DrawingView").then((m) => m.DrawingView), { ssr: false });
const PagesView = dynamic(() => import("./pages/PagesView").then((m) => m.PagesView), { ssr: false });

/** The wiring workbench: the pin chart to type, what it adds up to, the drawing, codes, revisions. */
export function Workbench(props: Omit<BenchProps, "kept">) {
  // what this device could not save on an earlier visit comes first
  const [start] = useState(() =>
    typeof window === "undefined" ? undefined : keptDraft(props.wiring.id, props.wiring.draftSeq, window.localStorage),
  );
  return <OnTheBench {...props} {...(start ? { kept: start } : {})} />;
}

function OnTheBench(props: BenchProps) {
  const grid = useRef<GridHandle>(null);
  const finder = useRef<InputRef>(null);
  const bench = useBench(props, grid);
  useBenchKeys(bench, () => finder.current?.focus());
  const [pasting, setPasting] = useState(false);
  const { chart, change, view, built, chosen, find, goToThing } = bench;
  return (
    <div className={styles.page}>
      <WorkbenchHead bench={bench} finder={finder} />
      <WorkbenchBar bench={bench} onPaste={() => setPasting(true)} />
      <WorkbenchAlerts bench={bench} />
      <main id="content" className={styles.main} data-view={view}>
        {view === "drawing" || view === "pages" ? null : built ? (
          <Things wiring={built.wiring} chosen={chosen} find={find} onChoose={goToThing} />
        ) : (
          <nav className={styles.things} />
        )}
        <div className={styles.middle}>
          <ViewOf bench={bench} />
        </div>
        <Beside bench={bench} />
      </main>
      <PasteChart
        open={pasting}
        chart={chart}
        onClose={() => setPasting(false)}
        onTake={(c) => {
          change(() => withRow({ ...c, rows: tidyRows(c.rows, chart.rows) }));
          setPasting(false);
        }}
      />
    </div>
  );
}

interface BenchPart {
  readonly bench: Bench;
}
function ViewOf({ bench }: BenchPart) {
  const { view, built, chart, change, library, revisions, freeze, chosen, find, goToThing } = bench;
  if (view === "pins") return <PinsView bench={bench} />;
  if (view === "pages") return <PagesView bench={bench} />;
  if (view === "revisions")
    return (
      <div className={styles.card}>
        <Revisions wiringId={library.id} revisions={revisions} onFreeze={freeze} />
      </div>
    );
  if (!built) return null;
  if (view === "drawing") return <DrawingView wiring={built.wiring} thing={chosen} find={find} onThing={goToThing} />;
  return (
    <div className={styles.card}>
      <Codes chart={chart} wiring={built.wiring} onChange={change} />
    </div>
  );
}

/** What is known of the thing chosen, beside the table and the drawing. */
function Beside({ bench }: BenchPart) {
  const { view, built, slow, library, chosen, point, photos, change, setPhotos, onCavity } = bench;
  if (!built || (view !== "pins" && view !== "drawing")) return null;
  const firstOfChosen = built.points.find((p) => p === chosen || p.startsWith(`${chosen}:`)) ?? chosen ?? "";
  return (
    <Panel
      wiringId={library.id}
      chart={slow}
      wiring={built.wiring}
      built={built}
      id={chosen}
      point={connectorOf(point) === chosen ? point : firstOfChosen}
      photos={photos}
      onChange={change}
      onPhotos={setPhotos}
      onCavity={onCavity}
    />
  );
}
