"use client";
import { shareText } from "@radicula/core/words";
import { useMemo, useState, type KeyboardEvent } from "react";
import { isArrow, nextPin, pinsOf, type MapPin } from "./pins";
import type { PlacedMap } from "./placed";
import styles from "./RootMap.module.css";
import type { MapSuspicion } from "./suspicion";
import { t } from "@/messages";

/** How near a finger must come to a pin, in the map's own units. */
const TAP = 15;

/**
 * The pins as things to press: with a finger, or with the keys. Tab comes to one pin of the map; the arrows go on along
 * the wires; Enter puts a lead there.
 */
export function MapPins({
  map,
  suspicion,
  next,
  onPoint,
}: {
  readonly map: PlacedMap;
  readonly suspicion: MapSuspicion;
  /** where the red lead goes next */
  readonly next: readonly string[];
  readonly onPoint: (point: string) => void;
}) {
  const pins = useMemo(() => pinsOf(map), [map]);
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const current = pins.find((p) => p.point === chosen) ?? pins.find((p) => next.includes(p.point)) ?? pins[0];
  const press = (e: KeyboardEvent<SVGElement>, at: MapPin) => {
    if (isArrow(e.key)) {
      e.preventDefault();
      const { point } = nextPin(map, pins, at, e.key);
      setChosen(point);
      e.currentTarget.parentElement?.querySelector<SVGElement>(`[data-point="${CSS.escape(point)}"]`)?.focus();
    } else if (e.key === "Enter" || e.key === " ") {
      e.preventDefault();
      e.stopPropagation();
      onPoint(at.point);
    }
  };
  return (
    <g role="group" aria-label={t("map.pinsArrowKeysFollowTheWires")}>
      {pins.map((p) => (
        <circle
          key={p.point}
          data-point={p.point}
          cx={p.cx}
          cy={p.cy}
          r={TAP}
          className={styles.tap}
          role="button"
          tabIndex={p === current ? 0 : -1}
          aria-label={pinName(map, p, suspicion, next)}
          onClick={() => onPoint(p.point)}
          onFocus={() => setChosen(p.point)}
          onKeyDown={(e) => press(e, p)}
        >
          <title>{t("map.putALeadOn", { point: p.point })}</title>
        </circle>
      ))}
    </g>
  );
}

function pinName(map: PlacedMap, pin: MapPin, suspicion: MapSuspicion, next: readonly string[]): string {
  const node = map.nodes.find((n) => n.id === pin.node);
  const share = suspicion.on.get(pin.point) ?? suspicion.on.get(node?.thing ?? "");
  return [
    t("map.putALeadOn", { point: pin.point }),
    node?.type === "inline" ? t("map.inLineConnector") : node?.title === pin.point ? node.detail : node?.title,
    share ? t("map.suspected", { share: shareText(share) }) : undefined,
    next.includes(pin.point) ? t("map.theNextReading") : undefined,
  ]
    .filter(Boolean)
    .join(", ");
}
