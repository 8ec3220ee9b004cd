import type { Circuit, Edit } from "../network/element.js";
import { elementIndex } from "./fault.js";

/** An output never stands at its very ends: a share of the supply. Value from memory. */
const RAIL_SHARE = 0.02;
const withinRails = (ratio: number) => Math.min(1 - RAIL_SHARE, Math.max(RAIL_SHARE, ratio));

/** A value of an element, times a factor. */
export const scaled = (c: Circuit, id: string, field: "volt" | "ohm", factor: number): Edit => {
  const element = elementIndex(c, id);
  return { replace: [{ element, by: { [field]: c.elements[element]![field] * factor } }] };
};
/** An output that stands off from where it should by a share of its supply */
export const shifted =
  (id: string) =>
  (share: number, c: Circuit): Edit => {
    const element = elementIndex(c, id);
    return { replace: [{ element, by: { ratio: withinRails(c.elements[element]!.ratio + share) } }] };
  };

/** An output of another scale than drawn. */
export const rescaled =
  (id: string) =>
  (factor: number, c: Circuit): Edit => {
    const element = elementIndex(c, id);
    return { replace: [{ element, by: { ratio: Math.min(1 - RAIL_SHARE, c.elements[element]!.ratio * factor) } }] };
  };
