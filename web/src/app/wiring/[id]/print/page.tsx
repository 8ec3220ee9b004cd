import { notFound } from "next/navigation";
import { buildChart } from "@radicula/core";
import { PrintedChart } from "@/features/wiring/PrintedChart";
import { findWiring, WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

/** The pin chart on paper, connector by connector, with room to write. */
export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = WiringId.safeParse((await params).id);
  const wiring = id.success ? await findWiring(id.data) : undefined;
  if (!wiring) notFound();
  return <PrintedChart wiring={buildChart(wiring.draft).wiring} photos={wiring.photos} />;
}
