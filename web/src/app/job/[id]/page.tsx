import { fold, toldCodes, withScannedCodes } from "@radicula/core";
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { CaseScreen } from "@/features/case/CaseScreen";
import { mapOf } from "@/features/case/map/query";
import { SHEETS, VIEWS } from "@/features/case/session/sheetNames";
import { entriesAfter } from "@/server/repo/entries";
import { layOutInPool } from "@/server/layOutPool";
import { databaseId } from "@/server/readiness";
import { findJob, JobId } from "@/server/repo/jobs";
import { findStanding } from "@/server/repo/standingAnswers";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };
const Address = z.object({
  sheet: z.enum(SHEETS).optional().catch(undefined),
  view: z.enum(VIEWS).optional().catch(undefined),
});

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  return { title: job ? `${job.machine ?? ""} ${job.title}`.trim() : t("pages.noSuchJob") };
}

export default async function Page({ params, searchParams }: Props) {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  if (!job) notFound();
  const entries = await entriesAfter(job.id, 0);
  const [standing, map, address] = await Promise.all([
    findStanding(job.id, entries.length),
    mapOf(withScannedCodes(job.wiring, entries), toldCodes(fold(entries)), layOutInPool),
    searchParams,
  ]);
  const { sheet, view } = Address.parse(address);
  return (
    <CaseScreen
      job={job}
      database={databaseId()}
      sheet={sheet}
      view={view}
      initialEntries={entries}
      initialMap={map}
      standing={standing}
    />
  );
}
