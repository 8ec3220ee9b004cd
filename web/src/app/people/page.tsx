import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { env } from "@/env";
import { PeoplePage } from "@/features/people/PeoplePage";
import { latestEvents } from "@/server/people/events";
import { listPeople } from "@/server/people/repo";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.people") });

export default async function Page() {
  if (env().RADICULA_SIGN_IN === "off") notFound();
  const [people, events] = await Promise.all([listPeople(), latestEvents()]);
  return <PeoplePage people={people} events={events.map((e) => ({ ...e, at: e.at.toISOString() }))} />;
}
