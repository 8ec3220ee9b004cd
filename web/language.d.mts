/** The language in which a request is answered: "en" or "de". */
export function languageOf(request: { readonly headers: Readonly<Record<string, string | undefined>> }): string;
