import { formatQuantity, type Candidate } from "@radicula/core";
import { cavityOf } from "@radicula/core/words";
import styles from "./Runs.module.css";
import { t } from "@/messages";

/** How a Hall sensor is connected on the bench: battery, a resistor to its signal pin, a voltmeter at the output. */
export function HallBenchDrawing({ step }: { readonly step: Candidate }) {
  const [supply, ground, pull] = step.state.jumpers ?? [];
  if (!supply || !ground || !pull) return null;
  const ohm = formatQuantity(pull.ohm, "Ω");
  const pins = [
    { y: 28, name: "supply", cavity: cavityOf(supply.to) },
    { y: 68, name: "signal", cavity: cavityOf(pull.to) },
    { y: 108, name: "ground", cavity: cavityOf(ground.to) },
  ];
  return (
    <svg
      className={styles.drawing}
      viewBox="0 0 340 136"
      role="img"
      aria-label={t("runs.batteryPlusToPinBatteryNegative", { to: supply.to, to2: ground.to, ohm, to3: pull.to })}
    >
      <path className={styles.lead} d="M40 48V28H232M40 88V108H232" />
      <path className={styles.lead} d="M86 28V68H98M146 68H232" />
      <circle className={styles.joint} cx="86" cy="28" r="3" />
      <rect className={styles.body} x="98" y="60" width="48" height="16" rx="2" />
      <text className={styles.small} x="122" y="54" textAnchor="middle">
        {ohm}
      </text>
      <path className={styles.lead} d="M186 68V78M186 98V108" />
      <circle className={styles.joint} cx="186" cy="68" r="3" />
      <circle className={styles.joint} cx="186" cy="108" r="3" />
      <circle className={styles.body} cx="186" cy="88" r="10" />
      <text x="186" y="92" textAnchor="middle">
        V
      </text>
      <rect className={styles.body} x="14" y="48" width="52" height="40" rx="3" />
      <text x="40" y="64" textAnchor="middle">
        +
      </text>
      <text x="40" y="82" textAnchor="middle">
        −
      </text>
      <rect className={styles.body} x="232" y="12" width="94" height="112" rx="4" />
      {pins.map((p) => (
        <text key={p.name} x="242" y={p.y + 4}>
          {p.cavity} {p.name}
        </text>
      ))}
    </svg>
  );
}
