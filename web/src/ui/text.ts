export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
/** A name as part of a file name. */
export const fileName = (name: string, otherwise: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60) || otherwise;
