import type { Metadata } from "next";
import { InvitationPage } from "@/features/people/InvitationPage";
import { personOfInvitation } from "@/server/people/repo";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.invitation"), referrer: "no-referrer" });

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly code?: string | string[] }>;
}) {
  const { code } = await searchParams;
  const text = typeof code === "string" ? code.slice(0, 100) : "";
  const person = text ? await personOfInvitation(text) : undefined;
  return <InvitationPage code={text} person={person?.name} />;
}
