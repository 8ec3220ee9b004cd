"use client";
import { ConfigProvider, message as shortMessage, theme as antTheme } from "antd";
import type { MessageInstance } from "antd/es/message/interface";
import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from "react";
import { DARK, LIGHT, THEME_COOKIE } from "./tokens";
import { useMedia } from "./useMedia";

type Mode = "light" | "dark";
const ThemeMode = createContext<{ mode: Mode; toggle(): void }>({ mode: "light", toggle: () => undefined });
export const useThemeMode = () => useContext(ThemeMode);

const Messages = createContext<MessageInstance>(shortMessage);
/** Says something in passing, over the page. */
export const useMessages = (): MessageInstance => useContext(Messages);
export function WithMessages({ children }: { readonly children: ReactNode }) {
  const [messages, holder] = shortMessage.useMessage();
  return (
    <Messages value={messages}>
      {holder}
      {children}
    </Messages>
  );
}

/** Light for daylight, dark for under the machine. The choice is kept in a cookie so that the first paint has it. */
export function Theme({ initial, children }: { readonly initial: Mode | undefined; readonly children: ReactNode }) {
  const [chosen, setChosen] = useState<Mode | undefined>(initial);
  const dark = useMedia("(prefers-color-scheme: dark)");
  const mode: Mode = chosen ?? (dark ? "dark" : "light");
  useEffect(() => {
    document.documentElement.dataset["theme"] = mode;
  }, [mode]);
  const toggle = useCallback(() => {
    const next = mode === "light" ? "dark" : "light";
    document.cookie = `${THEME_COOKIE}=${next}; path=/; max-age=31536000; samesite=lax`;
    setChosen(next);
  }, [mode]);
  const c = mode === "light" ? LIGHT : DARK;
  const config = useMemo(
    () => ({
      // a scope of its own per theme: else parts styled before a switch keep their old colours
      cssVar: { key: `radicula-${mode}` },
      algorithm: mode === "light" ? antTheme.defaultAlgorithm : antTheme.darkAlgorithm,
      token: {
        colorPrimary: c.accent,
        colorInfo: c.accent,
        colorLink: c.accent,
        colorError: c.rust,
        colorWarning: c.rust,
        colorBgBase: c.card,
        colorBgLayout: c.paper,
        colorBgContainer: c.card,
        colorBgElevated: c.card,
        colorText: c.ink,
        colorTextSecondary: c.muted,
        colorTextTertiary: c.muted,
        colorTextDescription: c.muted,
        colorTextPlaceholder: c.muted,
        colorBorder: c.line,
        colorBorderSecondary: c.line,
        colorTextLightSolid: mode === "light" ? "#FFFEFB" : "#10211B",
        fontFamily: "var(--sans)",
        fontSize: 16,
        borderRadius: 8,
        controlHeight: 44,
        wireframe: false,
      },
      components: { Button: { fontWeight: 600, primaryShadow: "none", defaultShadow: "none" } },
    }),
    [mode, c],
  );
  return (
    <ThemeMode value={useMemo(() => ({ mode, toggle }), [mode, toggle])}>
      <ConfigProvider theme={config} wave={{ disabled: true }}>
        <WithMessages>{children}</WithMessages>
      </ConfigProvider>
    </ThemeMode>
  );
}
