"use client";
import { Button } from "antd";
import type { ReactNode } from "react";
import styles from "./Case.module.css";
import { useCase } from "./session/caseContext";
import { Working } from "./Working";

/**
 * What to do first while there is no next reading: wiring, names of codes, the scan; or that it is being worked out.
 */
export function StartHere() {
  const { wiring, analysis, codes } = useCase();
  if (wiring.devices.length === 0) return <TypeWiring />;
  if (analysis?.stage !== "waiting") return <Solving />;
  return codes.set.length ? <NameTheCodes /> : <ScanFirst />;
}

function Start({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className={styles.start}>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function TypeWiring() {
  const { workbench } = useCase();
  return (
    <Start title="No wiring yet">
      <p>
        Type the connectors around the coded sensors: connector, cavity, colour, function, where it goes. A dozen lines
        are enough to start.
      </p>
      {workbench ? (
        <Button type="primary" href={workbench}>
          Type the wiring
        </Button>
      ) : null}
    </Start>
  );
}

function NameTheCodes() {
  const { codes, sheets } = useCase();
  return (
    <Start title="Which component is each code for?">
      <p>
        {codes.set.map((c) => c.code).join(", ")}: no part of this wiring is known for{" "}
        {codes.set.length === 1 ? "it" : "them"}, so nothing can be ranked yet.
      </p>
      <Button type="primary" onClick={() => sheets.open("name")}>
        Say which part each names
      </Button>
    </Start>
  );
}

function ScanFirst() {
  const { sheets, folded } = useCase();
  return (
    <Start title="Start with the codes">
      <p>Scan every module before anything is unplugged. The map then shows what the coded circuits share.</p>
      <Button type="primary" onClick={() => sheets.open("codes")}>
        Type or paste the scan
      </Button>
      {folded.intake ? null : (
        <button type="button" className="link" onClick={() => sheets.open("intake")}>
          First, what the customer says
        </button>
      )}
    </Start>
  );
}

function Solving() {
  const { computed } = useCase();
  if (computed.stopped)
    return (
      <Start title="Stopped">
        <p>Nothing was worked out yet. Nothing in the logbook is lost.</p>
        <Button type="primary" onClick={computed.goOn}>
          Go on
        </Button>
      </Start>
    );
  return (
    // the card of the next reading comes here: the room it takes is kept
    <section className={styles.start} data-solving="true" aria-live="polite">
      <h2>Solving the circuit…</h2>
      <p className="muted">Every fault this wiring can have, at every severity.</p>
      <Working />
    </section>
  );
}
