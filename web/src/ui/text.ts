export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
/** At most so many characters, cut between characters as they are read, not within an emoji. */
export function clipped(text: string, most: number): string {
  if (text.length <= most) return text;
  const characters = [...new Intl.Segmenter().segment(text)];
  return characters.length <= most
    ? text
    : `${characters
        .slice(0, most - 1)
        .map((c) => c.segment)
        .join("")
        .trimEnd()}…`;
}

/** A name as part of a file name. */
export const fileName = (name: string, otherwise: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60) || otherwise;
