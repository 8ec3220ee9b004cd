import { fold, withScannedCodes } from "@radicula/core";
import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { CaseScreen } from "@/features/case/CaseScreen";
import { mapOf } from "@/features/case/map/query";
import { entriesAfter, findJob, JobId } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";
type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  return { title: job ? `${job.machine ?? ""} ${job.title}`.trim() : "No such job" };
}

export default async function Page({ params }: Props) {
  const id = JobId.safeParse((await params).id);
  const job = id.success ? await findJob(id.data) : undefined;
  if (!job) notFound();
  const entries = await entriesAfter(job.id, 0);
  return <CaseScreen job={job} initialEntries={entries} initialMap={await mapOf(withScannedCodes(job.wiring, entries), fold(entries).codes.map((c) => c.entry))} />;
}
