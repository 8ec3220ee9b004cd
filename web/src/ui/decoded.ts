/** Text as UTF-8, or as what spreadsheets of old write. */
export function decoded(bytes: ArrayBuffer): { readonly text: string; readonly isGuessed: boolean } {
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), isGuessed: false };
  } catch {
    return { text: new TextDecoder("windows-1252").decode(bytes), isGuessed: true };
  }
}
