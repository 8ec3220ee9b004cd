import { cutText } from "./cutText.js";
/** A wire's colour as read: base, stripe where there is one, and the letters of IEC 60757. */
export interface WireColour {
  readonly base: string;
  readonly stripe?: string;
  /** `OG/WH` */ readonly letters: string;
}
export type ColourRead =
  | { readonly status: "read"; readonly colour: WireColour }
  /** the same letters mean different colours in different notations */
  | { readonly status: "ambiguous"; readonly text: string; readonly could: readonly string[] }
  | { readonly status: "unknown"; readonly text: string; readonly nearest: readonly string[] };

/** Letter codes of IEC 60757 (values from memory). */
export const COLOUR_LETTERS = [
  "BK",
  "BN",
  "RD",
  "OG",
  "YE",
  "GN",
  "BU",
  "VT",
  "GY",
  "WH",
  "PK",
  "TQ",
  "GD",
  "SR",
] as const;
/**
 * Other ways drawings write them (common practice, no source): words, three letters, two letters of other languages.
 */
const OTHER: Readonly<Record<string, string>> = {
  BLACK: "BK",
  BLK: "BK",
  SW: "BK",
  SCHWARZ: "BK",
  NOIR: "BK",
  BROWN: "BN",
  BRN: "BN",
  BR: "BN",
  BRAUN: "BN",
  RED: "RD",
  RT: "RD",
  ROT: "RD",
  ROUGE: "RD",
  R: "RD",
  ORANGE: "OG",
  ORG: "OG",
  ORN: "OG",
  OR: "OG",
  O: "OG",
  YELLOW: "YE",
  YEL: "YE",
  GE: "YE",
  GELB: "YE",
  JAUNE: "YE",
  YL: "YE",
  Y: "YE",
  GREEN: "GN",
  GRN: "GN",
  GRUEN: "GN",
  GRÜN: "GN",
  VERT: "GN",
  BLUE: "BU",
  BLU: "BU",
  BLAU: "BU",
  BLEU: "BU",
  LBU: "BU",
  DBU: "BU",
  LGN: "GN",
  DGN: "GN",
  LTBLU: "BU",
  DKBLU: "BU",
  LTGRN: "GN",
  DKGRN: "GN",
  VIOLET: "VT",
  PURPLE: "VT",
  VIO: "VT",
  PPL: "VT",
  PUR: "VT",
  VI: "VT",
  LILAC: "VT",
  LI: "VT",
  GREY: "GY",
  GRAY: "GY",
  GRY: "GY",
  GRAU: "GY",
  WHITE: "WH",
  WHT: "WH",
  WS: "WH",
  WEISS: "WH",
  BLANC: "WH",
  W: "WH",
  PINK: "PK",
  PNK: "PK",
  RS: "PK",
  ROSA: "PK",
  TURQUOISE: "TQ",
  TRQ: "TQ",
  TK: "TQ",
  GOLD: "GD",
  SILVER: "SR",
  SLV: "SR",
  TAN: "BN",
  TN: "BN",
  BE: "BN",
  BEIGE: "BN",
};
/** Letters that mean one colour here and another there (common practice, no source). */
const AMBIGUOUS: Readonly<Record<string, readonly string[]>> = {
  GR: ["GY", "GN"],
  BL: ["BU", "BK"],
  B: ["BU", "BK"],
  G: ["GN", "GY"],
  V: ["VT", "GN"],
};
const LETTERS: ReadonlySet<string> = new Set(COLOUR_LETTERS);

const one = (word: string): string | readonly string[] | undefined =>
  LETTERS.has(word) ? word : (AMBIGUOUS[word] ?? OTHER[word]);

/**
 * Reads a wire colour in any usual notation: `OG/WH`, `ogwh`, `orange-white`, `BLK/RED`, `sw/rt`, `green with yellow
 * stripe`.
 * The text itself is never changed by this; it only says what the text means.
 */
export function parseColour(text: string): ColourRead {
  const shown = cutText(text.trim(), 40);
  const bare = shown
    .toUpperCase()
    .replace(/\b(WITH|STRIPE|STRIPED|LIGHT|DARK|LT|DK|TRACER)\b/g, " ")
    .replace(/(LIGHT|DARK)(?=[A-Z])/g, "");
  let words = bare.split(/[^\p{L}]+/u).filter(Boolean);
  if (words.length === 1 && one(words[0]!) === undefined) words = split(words[0]!) ?? words;
  const read = words.map(one);
  if (words.length === 0 || words.length > 2 || read.some((r) => r === undefined))
    return { status: "unknown", text: shown, nearest: nearest(words.find((w) => one(w) === undefined) ?? bare) };
  const could = read.find((r): r is readonly string[] => Array.isArray(r));
  if (could) return { status: "ambiguous", text: shown, could };
  const [base, stripe] = read as [string, string | undefined];
  return {
    status: "read",
    colour: {
      base,
      ...(stripe && stripe !== base ? { stripe } : {}),
      letters: stripe && stripe !== base ? `${base}/${stripe}` : base,
    },
  };
}

/** `OGWH`, `BLKRED`: two colours written together. */
function split(word: string): string[] | undefined {
  for (const at of word.length === 4 ? [2] : word.length === 6 ? [3] : word.length === 5 ? [2, 3] : []) {
    const parts = [word.slice(0, at), word.slice(at)];
    if (parts.every((p) => one(p) !== undefined)) return parts;
  }
  return undefined;
}

/** Letters that differ from what was typed in one place. */
function nearest(word: string): string[] {
  return COLOUR_LETTERS.filter(
    (l) => [...l].filter((c, i) => word[i] === c).length >= 1 && Math.abs(word.length - l.length) <= 1,
  ).slice(0, 4);
}

/** Whether two texts mean the same colour, in whatever notation. */
export function sameColour(a: string, b: string): boolean {
  const x = parseColour(a);
  const y = parseColour(b);
  return x.status === "read" && y.status === "read"
    ? x.colour.letters === y.colour.letters
    : a.trim().toUpperCase() === b.trim().toUpperCase();
}
