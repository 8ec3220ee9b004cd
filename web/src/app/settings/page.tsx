import type { Metadata } from "next";
import { SettingsPage } from "@/features/report/SettingsPage";
import { workshopSettings } from "@/server/repo/workshop";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.workshop") });

export default async function Page() {
  return <SettingsPage settings={await workshopSettings()} />;
}
