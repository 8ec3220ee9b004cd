"use client";
import { findReaderLanguage, isLanguage, type Language } from "@radicula/core/words";
import { ConfigProvider } from "antd";
import type { Locale } from "antd/es/locale";
import { use, type ReactNode } from "react";

// a page is in one language from its first word on: the one the server wrote it in
if (typeof document !== "undefined") {
  const { lang } = document.documentElement;
  findReaderLanguage(() => (isLanguage(lang) ? lang : undefined));
}

let german: Promise<Locale> | undefined;
const loadGerman = () => (german ??= import("@/messages/german").then(({ addGerman }) => addGerman()));

/** Shows what is inside once its language is there. English always is. */
export function LanguageOf({ language, children }: { readonly language: Language; readonly children: ReactNode }) {
  return language === "de" ? <ConfigProvider locale={use(loadGerman())}>{children}</ConfigProvider> : children;
}
