"use client";
import { Button, Checkbox, Modal } from "antd";
import { transfer, wrap } from "comlink";
import { useEffect, useRef, useState } from "react";
import { LongWork } from "@/ui/LongWork";
import type { Corner, Corners } from "@/ui/page/straighten";
import type { StraightenApi } from "@/workers/straighten.worker";
import styles from "./Pages.module.css";
import { t } from "@/messages";

/** Longest side of what is shown while corners are dragged, points. */
const SHOWN = 1200;
/** An arrow key moves a corner by this share of the picture. */
const STEP = 0.005;

interface Props {
  /** upright, as the camera meant it */
  readonly picture: ImageBitmap;
  readonly name: string;
  /** the straight picture; undefined where it is taken as it is */
  readonly onTake: (picture: Blob | undefined) => void;
  readonly onClose: () => void;
}

/** Four corners are dragged to those of the sheet; the picture between them becomes the page. */
export function Straighten({ picture, name, onTake, onClose }: Props) {
  const { width, height } = picture;
  const [corners, setCorners] = useState<Corners>([
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ]);
  const [lift, setLift] = useState(true);
  const work = useRef<Worker | undefined>(undefined);
  const [isBusy, setBusy] = useState(false);
  const stop = () => {
    work.current?.terminate();
    work.current = undefined;
    setBusy(false);
  };
  useEffect(() => () => work.current?.terminate(), []);
  const straighten = async () => {
    setBusy(true);
    const worker = new Worker(new URL("../../../workers/straighten.worker.ts", import.meta.url), { type: "module" });
    work.current = worker;
    const copy = await createImageBitmap(picture);
    const blob = await wrap<StraightenApi>(worker).straighten(transfer(copy, [copy]), corners, lift);
    stop();
    onTake(blob);
  };
  return (
    <Modal
      open
      width={900}
      title={t("paper.straighten", { name })}
      onCancel={onClose}
      footer={
        <>
          <Button onClick={() => onTake(undefined)} disabled={isBusy}>
            {t("paper.asItIs")}
          </Button>
          <Button type="primary" onClick={() => void straighten()} disabled={isBusy}>
            {t("paper.straightenIt")}
          </Button>
        </>
      }
    >
      <p className="muted">{t("paper.dragTheCorners")}</p>
      <CornerTool picture={picture} corners={corners} onCorners={setCorners} />
      <Checkbox checked={lift} onChange={(e) => setLift(e.target.checked)}>
        {t("paper.liftContrast")}
      </Checkbox>
      {isBusy ? <LongWork says={t("paper.straightening")} onStop={stop} /> : null}
    </Modal>
  );
}

function CornerTool({
  picture,
  corners,
  onCorners,
}: {
  readonly picture: ImageBitmap;
  readonly corners: Corners;
  readonly onCorners: (corners: Corners) => void;
}) {
  const { width, height } = picture;
  const canvas = useRef<HTMLCanvasElement>(null);
  const held = useRef<number | undefined>(undefined);
  useEffect(() => {
    const share = Math.min(1, SHOWN / Math.max(width, height));
    if (!canvas.current) return;
    canvas.current.width = Math.round(width * share);
    canvas.current.height = Math.round(height * share);
    canvas.current.getContext("2d")?.drawImage(picture, 0, 0, canvas.current.width, canvas.current.height);
  }, [picture, width, height]);
  const move = (i: number, [x, y]: Corner) => {
    const at: Corner = [Math.min(width, Math.max(0, x)), Math.min(height, Math.max(0, y))];
    onCorners(corners.map((c, k) => (k === i ? at : c)) as unknown as Corners);
  };
  const names = [t("paper.upperLeft"), t("paper.upperRight"), t("paper.lowerRight"), t("paper.lowerLeft")];
  const radius = Math.max(width, height) / 45;
  return (
    <div className={styles.corners}>
      <canvas ref={canvas} />
      <svg
        viewBox={`0 0 ${width} ${height}`}
        onPointerMove={(e) => {
          const m = e.currentTarget.getScreenCTM();
          if (held.current !== undefined && m) move(held.current, [(e.clientX - m.e) / m.a, (e.clientY - m.f) / m.d]);
        }}
        onPointerUp={() => (held.current = undefined)}
      >
        <polygon points={corners.map((c) => c.join(",")).join(" ")} />
        {corners.map(([x, y], i) => (
          <circle
            key={names[i]}
            cx={x}
            cy={y}
            r={radius}
            tabIndex={0}
            role="slider"
            aria-label={names[i]}
            aria-valuenow={Math.round((100 * x) / width)}
            aria-valuetext={`${Math.round((100 * x) / width)} %, ${Math.round((100 * y) / height)} %`}
            onPointerDown={(e) => {
              e.currentTarget.ownerSVGElement?.setPointerCapture(e.pointerId);
              held.current = i;
            }}
            onKeyDown={(e) => {
              const by = ARROWS[e.key];
              if (!by) return;
              e.preventDefault();
              move(i, [x + by[0] * STEP * width, y + by[1] * STEP * height]);
            }}
          />
        ))}
      </svg>
    </div>
  );
}
const ARROWS: Readonly<Record<string, Corner>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
