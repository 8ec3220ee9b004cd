import { z } from "zod";
import { Library } from "@/features/library/Library";
import { listWirings } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
export const metadata = { title: "Wirings" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const words = z
    .string()
    .max(120)
    .catch("")
    .parse((await searchParams)["find"] ?? "");
  return <Library wirings={await listWirings(words)} words={words} />;
}
