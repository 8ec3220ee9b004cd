import type { Metadata } from "next";
import { CalculatorsPage } from "@/features/calculators/CalculatorsPage";
import { t } from "@/messages/server";

export const generateMetadata = (): Metadata => ({ title: t("pages.calculators") });
export default function Page() {
  return <CalculatorsPage />;
}
