"use client";
import type { DrawingSheet, Spot } from "@radicula/core";
import type { Viewer } from "openseadragon";
import { useEffect, useRef, type ReactNode } from "react";
import { aimWithLoupe } from "./loupe";
import { PAGE } from "@/ui/pageLimits";
import styles from "./PageViewer.module.css";
import { t } from "@/messages";

/** A finger is off by so many points of the screen, one that aims by fewer. */
const FINGER = 14;
const AIMED = 7;
const ZOOM_STEP = 1.4;

interface Props {
  readonly sheet: DrawingSheet;
  /** size of the picture, points */
  readonly picture: { readonly width: number; readonly height: number };
  /** drawn over the page, in its own units */
  readonly children: ReactNode;
  /** stands beside a place of the page and moves with it */
  readonly pinned?: { readonly at: Spot; readonly shows: ReactNode } | undefined;
  readonly onTap: (at: Spot, reach: number) => void;
  /** a box is drawn instead of the page being moved */
  readonly isDrawing: boolean;
  readonly onArea: (x: number, y: number, width: number, height: number) => void;
}

/** A page to move and to zoom like a map, with what is known of it drawn over it. */
export function PageViewer({ sheet, picture, children, pinned, onTap, isDrawing, onArea }: Props) {
  const element = useRef<HTMLDivElement>(null);
  const over = useRef<SVGGElement>(null);
  const viewer = useRef<Viewer | undefined>(undefined);
  const loupe = useRef<HTMLCanvasElement>(null);
  const pin = useRef<HTMLDivElement>(null);
  const pinnedAt = useRef(pinned?.at);
  const tap = useRef(onTap);
  useEffect(() => {
    tap.current = onTap;
  }, [onTap]);
  useEffect(() => {
    pinnedAt.current = pinned?.at;
    if (viewer.current) placePin(viewer.current, sheet.width, pin.current, pinned?.at);
  }, [pinned, sheet.width]);
  useEffect(() => {
    let isGone = false;
    void import("openseadragon").then(({ default: open }) => {
      if (isGone || !element.current) return;
      const made = open({
        element: element.current,
        drawer: "canvas",
        showNavigationControl: false,
        maxZoomPixelRatio: 4,
        visibilityRatio: 0.3,
        animationTime: 0.25,
        gestureSettingsMouse: { clickToZoom: false, dblClickToZoom: false },
        gestureSettingsTouch: { clickToZoom: false, dblClickToZoom: false },
        tileSources: {
          width: picture.width,
          height: picture.height,
          tileSize: PAGE.tile,
          tileOverlap: 0,
          minLevel: PAGE.leastLevel,
          maxLevel: Math.max(PAGE.leastLevel, Math.ceil(Math.log2(Math.max(picture.width, picture.height)))),
          getTileUrl: (level: number, x: number, y: number) => `/api/pages/${sheet.id}/${level}/${x}_${y}`,
        },
      });
      viewer.current = made;
      const place = () => {
        const { x, y, scale } = whereIs(made, sheet.width);
        over.current?.setAttribute("transform", `translate(${x} ${y}) scale(${scale})`);
        placePin(made, sheet.width, pin.current, pinnedAt.current);
      };
      // until somebody moves it, the whole page is in sight, however the room for it changes
      let isMoved = false;
      for (const event of ["canvas-drag", "canvas-scroll", "canvas-pinch"] as const)
        made.addHandler(event, () => (isMoved = true));
      made.addHandler("resize", () => {
        if (!isMoved) setTimeout(() => made.viewport.goHome(true), 0);
      });
      made.addHandler("update-viewport", place);
      made.addHandler("open", place);
      const tapAt = (position: { x: number; y: number }, finger: number) => {
        const { x, y, scale } = whereIs(made, sheet.width);
        tap.current([(position.x - x) / scale, (position.y - y) / scale], finger / scale);
      };
      made.addHandler("canvas-click", (e) => {
        if (e.quick) tapAt(e.position, FINGER);
      });
      if (loupe.current) aimWithLoupe(made, loupe.current, (at) => tapAt(at, AIMED));
    });
    return () => {
      isGone = true;
      viewer.current?.destroy();
      viewer.current = undefined;
    };
  }, [sheet.id, sheet.width, picture.width, picture.height]);
  const zoom = (by: number) => {
    viewer.current?.viewport.zoomBy(by);
    viewer.current?.viewport.applyConstraints();
  };
  return (
    <div className={styles.viewer}>
      <div ref={element} className={styles.picture} data-testid="page" />
      <svg className={styles.over} data-drawing={isDrawing} aria-hidden="true">
        <g ref={over} data-testid="over-page">
          {children}
          {isDrawing ? <AreaTool sheet={sheet} onArea={onArea} /> : null}
        </g>
      </svg>
      {pinned ? (
        <div ref={pin} className={styles.pinned}>
          {pinned.shows}
        </div>
      ) : null}
      <canvas ref={loupe} className={styles.loupe} hidden aria-hidden="true" />
      <span className={styles.zoom}>
        <button type="button" aria-label={t("paper.larger")} onClick={() => zoom(ZOOM_STEP)}>
          +
        </button>
        <button type="button" aria-label={t("paper.smaller")} onClick={() => zoom(1 / ZOOM_STEP)}>
          −
        </button>
        <button type="button" onClick={() => viewer.current?.viewport.goHome()}>
          {t("paper.wholePage")}
        </button>
      </span>
    </div>
  );
}

/** Where the page's upper left corner is on the screen, and how large one of its units. */
function whereIs(viewer: Viewer, width: number) {
  const { viewport } = viewer;
  const [a, b] = [viewport.pixelFromPoint(origin(viewport), true), viewport.pixelFromPoint(unit(viewport), true)];
  return { x: a.x, y: a.y, scale: (b.x - a.x) / width };
}
function placePin(viewer: Viewer, width: number, pin: HTMLElement | null, at: Spot | undefined): void {
  if (!pin || !at) return;
  const { x, y, scale } = whereIs(viewer, width);
  pin.style.transform = `translate(${x + at[0] * scale}px, ${y + at[1] * scale}px)`;
}
type Viewport = Viewer["viewport"];
const origin = (viewport: Viewport) => viewport.imageToViewportCoordinates(0, 0);
function unit(viewport: Viewport) {
  const p = origin(viewport);
  p.x += 1;
  return p;
}

/** Draws a rectangle from corner to corner. */
function AreaTool({ sheet, onArea }: Pick<Props, "sheet" | "onArea">) {
  const from = useRef<Spot | undefined>(undefined);
  const drawn = useRef<SVGRectElement>(null);
  const at = (e: React.PointerEvent<SVGRectElement>): Spot => {
    const m = e.currentTarget.getScreenCTM();
    return m ? [(e.clientX - m.e) / m.a, (e.clientY - m.f) / m.d] : [0, 0];
  };
  const area = (a: Spot, b: Spot) =>
    [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1])] as const;
  return (
    <>
      <rect
        width={sheet.width}
        height={sheet.height}
        fill="transparent"
        className={styles.canvas}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          from.current = at(e);
        }}
        onPointerMove={(e) => {
          if (!from.current) return;
          const [x, y, width, height] = area(from.current, at(e));
          for (const [name, value] of Object.entries({ x, y, width, height }))
            drawn.current?.setAttribute(name, String(value));
        }}
        onPointerUp={(e) => {
          if (!from.current) return;
          const [x, y, width, height] = area(from.current, at(e));
          from.current = undefined;
          if (width > 0.005 * sheet.width && height > 0.005 * sheet.width) onArea(x, y, width, height);
        }}
      />
      <rect ref={drawn} className={styles.area} />
    </>
  );
}
