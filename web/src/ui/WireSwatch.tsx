import { parseColour } from "@radicula/core";

/** Wire colour letters of IEC 60757 (values from memory) to something a screen can show. */
export const SCREEN: Readonly<Record<string, string>> = {
  BK: "#2B2B2B",
  BN: "#7A4A2B",
  RD: "#B83227",
  OG: "#CF8A2E",
  YE: "#E2C23B",
  GN: "#3E7D4F",
  BU: "#3567A5",
  VT: "#74509A",
  GY: "#8A8D8A",
  WH: "#F2F0EA",
  PK: "#D98AA0",
  TQ: "#3FA3A0",
  GD: "#B89A4A",
  SR: "#B9BEC2",
};

/** The wire alone, base and stripe; the letters must stand beside it. */
export function Swatch({ base, stripe }: { readonly base: string; readonly stripe?: string | undefined }) {
  return (
    <svg width="26" height="12" viewBox="0 0 30 12" aria-hidden="true">
      <rect x="1" y="1.5" width="28" height="9" rx="4.5" fill={SCREEN[base]} stroke="var(--muted)" strokeWidth="1" />
      {stripe ? <rect x="4" y="4.6" width="22" height="2.8" rx="1.4" fill={SCREEN[stripe]} /> : null}
    </svg>
  );
}

/** A wire as it looks, base and stripe, and always as it is written too. */
export function WireSwatch({ colour }: { readonly colour: string }) {
  const read = parseColour(colour);
  return (
    <span style={{ display: "inline-flex", alignItems: "center", gap: 6, whiteSpace: "nowrap" }}>
      {read.status === "read" ? <Swatch base={read.colour.base} stripe={read.colour.stripe} /> : null}
      <span className="mono">{colour}</span>
    </span>
  );
}
