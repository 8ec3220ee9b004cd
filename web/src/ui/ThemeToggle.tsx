"use client";
import { MoonOutlined, SunOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { useThemeMode } from "./Theme";

export function ThemeToggle() {
  const { mode, toggle } = useThemeMode();
  return (
    <Button
      type="text"
      onClick={toggle}
      icon={mode === "light" ? <MoonOutlined /> : <SunOutlined />}
      aria-label={mode === "light" ? "Dark colours" : "Light colours"}
      title={mode === "light" ? "Dark colours" : "Light colours"}
    />
  );
}
