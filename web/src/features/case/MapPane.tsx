"use client";
import { ASSUMED, wireId } from "@radicula/core";
import { sharedText, wordedList } from "@radicula/core/words";
import { Segmented } from "antd";
import dynamic from "next/dynamic";
import { useMemo } from "react";
import styles from "./Case.module.css";
import { RootMap } from "./map/RootMap";
import { showsFeeds } from "./map/suspicion";
import { useCase } from "./session/caseContext";
import type { MapView } from "./session/sheetNames";
import { t } from "@/messages";

const BeforeAfterView = dynamic(() => import("./proof/BeforeAfterView").then((m) => m.BeforeAfterView), { ssr: false });
const Course = dynamic(() => import("./course/Course").then((m) => m.Course), { ssr: false });
const Profile = dynamic(() => import("./profile/Profile").then((m) => m.Profile), { ssr: false });
const PageMap = dynamic(() => import("./page/PageMap").then((m) => m.PageMap), { ssr: false });
const SharedMatrixView = dynamic(() => import("./matrix/SharedMatrixView").then((m) => m.SharedMatrixView), {
  ssr: false,
});

const CHOICES: readonly { readonly value: MapView; readonly label: string }[] = wordedList(() => [
  { value: "map", label: t("job.rootMap") },
  { value: "page", label: t("job.myDrawing") },
  { value: "shared", label: t("job.whatTheyShare") },
  { value: "profile", label: t("job.alongTheWire") },
  { value: "course", label: t("job.suspicionOverTime") },
  { value: "beforeAfter", label: t("job.beforeAndAfter") },
]);

/** The map, or another way to look at what it shows. */
export function MapPane({ isEnded }: { readonly isEnded: boolean }) {
  const { codes, folded, view: choice, wiring } = useCase();
  const view = choice.shown;
  const readsYet = folded.readings.length > 0;
  // before a repair there is no after; without pages there is no drawing of one's own
  const isThere = (v: MapView) =>
    v === view ||
    (v === "beforeAfter" ? folded.repairs.length > 0 : v !== "page" || (wiring.pages?.sheets.length ?? 0) > 0);
  const choices = CHOICES.filter((c) => isThere(c.value));
  const about: Readonly<Record<MapView, string>> = {
    profile: t("job.voltsToBatteryNegativeFromThe"),
    page: t("job.suspicionOnYourOwnPages"),
    beforeAfter: t("job.sameReadingsBeforeAndAfter"),
    course: t("job.afterEachEntryOfTheLogbook"),
    shared: t("job.fromTheDrawingAloneBeforeAny"),
    map: codes.matrix.coded.length && !readsYet ? sharedText(codes.matrix) : t("job.thickerMeansMoreSuspected"),
  };
  return (
    <>
      <div className={styles.mapHead}>
        <Segmented<MapView> size="small" value={view} onChange={choice.show} options={choices} />{" "}
        <span className="muted" title={about[view]}>
          {about[view]}
        </span>
      </div>
      <ViewOf view={view} isEnded={isEnded} />
    </>
  );
}

function ViewOf({ view, isEnded }: { readonly view: MapView; readonly isEnded: boolean }) {
  const { analysis, folded, log, computed, namer, codes, sheets, maps, next, wiring } = useCase();
  const assumed = useMemo(
    () => new Set(wiring.wires.filter((w) => w.source === ASSUMED).map((w) => wireId(w))),
    [wiring],
  );
  if (view === "course")
    return (
      <Course
        suspects={analysis?.suspects ?? []}
        entries={log.entries.length}
        courseOf={computed.courseOf}
        namer={namer}
      />
    );
  if (view === "page") return <PageMap isEnded={isEnded} />;
  if (view === "profile") return <Profile />;
  if (view === "beforeAfter") return <BeforeAfterView />;
  if (view === "shared")
    return (
      <SharedMatrixView
        matrix={codes.matrix}
        unnamed={codes.unnamed.map((s) => s.code)}
        onName={() => sheets.open("name")}
        namer={namer}
      />
    );
  return (
    <RootMap
      map={showsFeeds(maps.full, analysis, next.candidate) ? maps.full : maps.short}
      analysis={analysis}
      folded={folded}
      next={next.candidate && !isEnded ? next.candidate.points : NOWHERE}
      assumed={assumed}
      unplugged={analysis?.folded.state.unplugged ?? NOWHERE}
      onPoint={sheets.openAt}
    />
  );
}
const NOWHERE: readonly string[] = [];
