/**
 * The first characters of a text. A sign that takes two units, such as an emoji, is never cut in half: half of one is
 * no text, and no database keeps it.
 * @param most UTF-16 units, as `length` counts them
 */
export const cutText = (text: string, most: number): string => text.slice(0, most).replace(/[\ud800-\udbff]$/, "");
