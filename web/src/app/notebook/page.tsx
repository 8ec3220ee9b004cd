import type { Metadata } from "next";
import { z } from "zod";
import { NotebookPage } from "@/features/notebook/NotebookPage";
import { listLessons } from "@/server/repo/lessons";
import { settleSummaries } from "@/server/repo/summaries";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.notebook") });

const Query = z.object({ find: z.string().max(120).catch("") });

export default async function Page({ searchParams }: { readonly searchParams: Promise<unknown> }) {
  const { find } = Query.parse(await searchParams);
  await settleSummaries();
  return <NotebookPage lessons={await listLessons(find)} find={find} />;
}
