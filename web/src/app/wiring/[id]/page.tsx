import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { z } from "zod";
import { Workbench } from "@/features/wiring/Workbench";
import { entriesAfter } from "@/server/repo/entries";
import { findJob, JobId } from "@/server/repo/jobs";
import { findWiring, WiringId } from "@/server/repo/wirings";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
type Props = { params: Promise<{ id: string }>; searchParams: Promise<Record<string, string | string[] | undefined>> };
const Query = z.object({
  job: JobId.optional().catch(undefined),
  view: z.enum(["pins", "pages", "drawing", "codes", "revisions"]).catch("pins"),
});

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const id = WiringId.safeParse((await params).id);
  const wiring = id.success ? await findWiring(id.data) : undefined;
  return { title: wiring ? t("pages.wiringOf", { name: wiring.draft.name }) : t("pages.noSuchWiring") };
}

export default async function Page({ params, searchParams }: Props) {
  const id = WiringId.safeParse((await params).id);
  const query = Query.parse(await searchParams);
  const wiring = id.success ? await findWiring(id.data) : undefined;
  if (!wiring) notFound();
  const job = query.job ? await findJob(query.job) : undefined;
  return (
    <Workbench
      wiring={wiring}
      job={job ? { id: job.id, title: job.title, started: (await entriesAfter(job.id, 0)).length > 0 } : null}
      view={query.view}
    />
  );
}
