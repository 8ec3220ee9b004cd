/** A whole number with its thousands apart: `60 000 000`. */
export const thousands = (value: unknown): string => Number(value).toLocaleString("en").replaceAll(",", "\u202f");
