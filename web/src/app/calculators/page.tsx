import type { Metadata } from "next";
import { CalculatorsPage } from "@/features/calculators/CalculatorsPage";

export const metadata: Metadata = { title: "Calculators" };
export default function Page() {
  return <CalculatorsPage />;
}
