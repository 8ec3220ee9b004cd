"use client";
import { SPOTS, type SpotKind } from "./hit";
import styles from "./Pages.module.css";
import { SPOT_NAMES } from "./SpotCards";
import { t } from "@/messages";

/** How far from the place the choices stand, points of the screen. */
const RADIUS = 74;

/** What a bare place may be, round about it: one more tap says it. */
export function Wheel({
  onChoose,
  onBox,
}: {
  readonly onChoose: (kind: SpotKind) => void;
  readonly onBox: () => void;
}) {
  const choices = [
    ...SPOTS.map((kind) => ({ name: SPOT_NAMES[kind], choose: () => onChoose(kind) })),
    { name: t("paper.box"), choose: onBox },
  ];
  return (
    <div role="group" aria-label={t("paper.whatIsHere")} className={styles.wheel}>
      {choices.map(({ name, choose }, i) => {
        const turn = (2 * Math.PI * i) / choices.length - Math.PI / 2;
        const at = `translate(-50%, -50%) translate(${RADIUS * Math.cos(turn)}px, ${RADIUS * Math.sin(turn)}px)`;
        return (
          <button key={name} type="button" style={{ transform: at }} onClick={choose}>
            {name}
          </button>
        );
      })}
    </div>
  );
}
