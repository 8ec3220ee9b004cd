"use client";
import { MoonOutlined, SunOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useThemeMode } from "./Theme";
import { t } from "@/messages";

export function ThemeToggle() {
  const { mode, toggle } = useThemeMode();
  return (
    <Button
      type="text"
      onClick={toggle}
      icon={mode === "light" ? <MoonOutlined /> : <SunOutlined />}
      aria-label={mode === "light" ? t("ui.darkColours") : t("ui.lightColours")}
      title={mode === "light" ? t("ui.darkColours") : t("ui.lightColours")}
    />
  );
}
