import type { Metadata } from "next";
import { z } from "zod";
import { Library } from "@/features/library/Library";
import { PUT_AWAY } from "@/server/db/schema";
import { listWirings } from "@/server/repo/wirings";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.wirings") });

const Query = z.object({
  find: z.string().max(120).catch(""),
  state: z.enum(PUT_AWAY).optional().catch(undefined),
});

export default async function Page({ searchParams }: { readonly searchParams: Promise<unknown> }) {
  const { find, state } = Query.parse(await searchParams);
  return <Library wirings={await listWirings(find, state)} words={find} away={state} />;
}
