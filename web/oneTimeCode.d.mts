/** Groups of four letters in an invitation. */
export const INVITATION_GROUPS: number;
/** How long an invitation is good. */
export const INVITATION_DAYS: number;
/** A code to be written down: groups of four letters, 5 bits each. */
export function newCode(groups: number): string;
/** What is kept of a code: SHA-256, hex; small letters and dashes do not count. */
export function codeHash(code: string): string;
