import type { Metadata } from "next";
import { SettingsPage } from "@/features/report/SettingsPage";
import { workshopSettings } from "@/server/repo/workshop";

export const dynamic = "force-dynamic";
export const metadata: Metadata = { title: "Workshop" };

export default async function Page() {
  return <SettingsPage settings={await workshopSettings()} />;
}
