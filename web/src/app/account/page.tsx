import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { env } from "@/env";
import { AccountPage } from "@/features/people/AccountPage";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.myAccount") });

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly new?: string }> }) {
  if (env().RADICULA_SIGN_IN === "off") notFound();
  return <AccountPage isNew={(await searchParams).new !== undefined} />;
}
