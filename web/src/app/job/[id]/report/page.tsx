import { REPORT_LENGTHS } from "@radicula/core/words";
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { ReportPage } from "@/features/report/ReportPage";
import { reportOf } from "@/server/report";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.report") });
type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };
const Address = z.object({ length: z.enum(REPORT_LENGTHS).catch("customer") });

/** The report of a job on the screen, and on paper by the browser's own printing. */
export default async function Page({ params, searchParams }: Props) {
  const { id } = await params;
  const { length } = Address.parse(await searchParams);
  const report = await reportOf(id, length);
  if (!report) notFound();
  return <ReportPage job={id} report={report} />;
}
