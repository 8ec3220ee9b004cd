import type { Viewer } from "openseadragon";

/** How long a finger rests until it aims, and how far it may slip meanwhile. */
const REST_MS = 350;
const SLIP = 8;
/** Width of the loupe on the screen, how far above the finger it stands, and how much it enlarges. */
const SIZE = 120;
const ABOVE = 84;
const LARGER = 2.2;

interface At {
  readonly x: number;
  readonly y: number;
}

/**
 * A finger that rests on the page aims: what is under it is shown larger above it, it moves without moving the page,
 * and the place it leaves is tapped.
 */
export function aimWithLoupe(viewer: Viewer, loupe: HTMLCanvasElement, onTap: (at: At) => void): void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let from: At | undefined;
  let isAiming = false;
  const end = () => {
    clearTimeout(timer);
    isAiming = false;
    loupe.hidden = true;
  };
  viewer.addHandler("canvas-press", (e) => {
    end();
    if (e.pointerType !== "touch") return;
    from = e.position;
    timer = setTimeout(() => {
      isAiming = true;
      show(viewer, loupe, from!);
    }, REST_MS);
  });
  viewer.addHandler("canvas-drag", (e) => {
    if (isAiming) {
      e.preventDefaultAction = true;
      show(viewer, loupe, e.position);
    } else if (from && Math.hypot(e.position.x - from.x, e.position.y - from.y) > SLIP) clearTimeout(timer);
  });
  viewer.addHandler("canvas-pinch", end);
  viewer.addHandler("canvas-release", (e) => {
    const aimed = isAiming;
    end();
    if (aimed) onTap(e.position);
  });
}

function show(viewer: Viewer, loupe: HTMLCanvasElement, { x, y }: At): void {
  const drawn = (viewer.drawer as unknown as { canvas: unknown }).canvas;
  const context = loupe.getContext("2d");
  if (!(drawn instanceof HTMLCanvasElement) || !context) return;
  const sharp = window.devicePixelRatio;
  loupe.width = SIZE * sharp;
  loupe.height = SIZE * sharp;
  const share = drawn.width / drawn.clientWidth;
  const part = (SIZE / LARGER) * share;
  context.fillStyle = "white";
  context.fillRect(0, 0, loupe.width, loupe.height);
  context.drawImage(drawn, x * share - part / 2, y * share - part / 2, part, part, 0, 0, loupe.width, loupe.height);
  context.strokeStyle = "#1d6b58";
  context.lineWidth = sharp;
  context.beginPath();
  for (const [a, b] of [
    [0.5, 0],
    [0, 0.5],
  ] as const) {
    context.moveTo(loupe.width * a, loupe.height * b);
    context.lineTo(loupe.width * (a || 1), loupe.height * (b || 1));
  }
  context.stroke();
  // above the finger, below it at the upper edge
  const top = y - ABOVE - SIZE / 2 < 0 ? y + ABOVE : y - ABOVE;
  loupe.style.transform = `translate(${x - SIZE / 2}px, ${top - SIZE / 2}px)`;
  loupe.hidden = false;
}
