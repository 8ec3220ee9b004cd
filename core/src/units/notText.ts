/** Characters by which a text is told from other bytes, and the share of odd ones that no text has. */
const HEAD = 4_000;
const ODD_SHARE = 1 / 50;

/** Bytes of something else, read as text: many characters that no text holds. */
export function notText(text: string): boolean {
  const head = text.slice(0, HEAD);
  const odd = head.match(/[\u0000-\u0008\u000e-\u001f\ufffd]/g)?.length ?? 0;
  return odd > head.length * ODD_SHARE;
}
