"use client";
import { findReaderLanguage, isLanguage, LANGUAGES, readerLanguage, type Language } from "@radicula/core/words";
import { ConfigProvider, Segmented } from "antd";
import type { Locale } from "antd/es/locale";
import { use, type ReactNode } from "react";
import { t } from "@/messages";

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

/** A language as who speaks it calls it. */
const NAMES: Readonly<Record<Language, string>> = { en: "English", de: "Deutsch" };

/** Chooses the language of this device. The page is loaded anew in it. */
export function LanguageChoice() {
  return (
    <Segmented<Language>
      block
      aria-label={t("ui.language")}
      options={LANGUAGES.map((value) => ({ value, label: <span lang={value}>{NAMES[value]}</span> }))}
      value={readerLanguage()}
      onChange={(language) => {
        document.cookie = `radicula-language=${language}; path=/; max-age=31536000; samesite=lax`;
        location.reload();
      }}
    />
  );
}
