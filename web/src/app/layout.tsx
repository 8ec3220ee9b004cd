import "./globals.css";
import { AntdRegistry } from "@ant-design/nextjs-registry";
import type { Metadata, Viewport } from "next";
import { cookies, headers } from "next/headers";
import type { ReactNode } from "react";
import { readerLanguage } from "@radicula/core/words";
import { env } from "@/env";
import { Signed } from "@/features/people/Signed";
import { signedIn } from "@/server/people/signedIn";
import { LanguageOf } from "@/ui/Language";
import { Offline } from "@/ui/Offline";
import { Theme } from "@/ui/Theme";
import { THEME_COOKIE } from "@/ui/tokens";
import { readUnits, unitsCookie } from "@/ui/unitsCookie";
import { t } from "@/messages/server";
import { fontClasses } from "./fonts";

export const generateMetadata = (): Metadata => ({
  title: { default: "Radicula", template: "%s · Radicula" },
  description: t("pages.findsTheOneSharedCauseBehind"),
});
export const viewport: Viewport = {
  width: "device-width",
  initialScale: 1,
  themeColor: [
    { media: "(prefers-color-scheme: light)", color: "#F5F3EC" },
    { media: "(prefers-color-scheme: dark)", color: "#161A17" },
  ],
};

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const kept = await cookies();
  const chosen = kept.get(THEME_COOKIE)?.value;
  const person = signedIn(await headers());
  const units = readUnits(kept.get(unitsCookie(person?.id))?.value);
  const initial = chosen === "dark" || chosen === "light" ? chosen : undefined;
  return (
    <html lang={readerLanguage()} className={fontClasses} data-theme={initial ?? "light"} suppressHydrationWarning>
      <body>
        <a href="#content" className="skip">
          {t("pages.skipToTheContent")}
        </a>
        <AntdRegistry>
          <LanguageOf language={readerLanguage()}>
            <Theme initial={initial}>
              <Offline isOn={env().RADICULA_SIGN_IN !== "on"} />
              <Signed isOn={env().RADICULA_SIGN_IN === "on"} initial={person} units={units}>
                {children}
              </Signed>
            </Theme>
          </LanguageOf>
        </AntdRegistry>
      </body>
    </html>
  );
}
