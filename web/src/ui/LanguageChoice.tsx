"use client";
import { LANGUAGES, readerLanguage, type Language } from "@radicula/core/words";
import { Segmented } from "antd";
import { t } from "@/messages";

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
