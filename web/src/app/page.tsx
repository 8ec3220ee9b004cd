import { Board } from "@/features/board/Board";
import { listJobs } from "@/server/repo/jobs";
import { listWirings } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

export default async function Page() {
  const [jobs, wirings] = await Promise.all([listJobs(), listWirings()]);
  return <Board jobs={jobs} wirings={wirings.map(({ id, name, machineType }) => ({ id, name, machineType }))} />;
}
