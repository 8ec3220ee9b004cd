// Codes that are used once: invitations and recovery codes. Shared by the server and npm run people.
import { createHash, randomInt } from "node:crypto";

/** No letters or digits that are taken for one another. */
const LETTERS = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ";
export const INVITATION_GROUPS = 6;
export const INVITATION_DAYS = 7;

/** A code to be written down: groups of four letters, 5 bits each. */
export function newCode(groups) {
  const group = () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join("");
  return Array.from({ length: groups }, group).join("-");
}
/** Codes are long and random, so a plain hash keeps them; small letters and dashes do not count. */
export const codeHash = (code) =>
  createHash("sha256")
    .update(code.toUpperCase().replace(/[^0-9A-Z]/g, ""))
    .digest("hex");
