import { Board } from "@/features/board/Board";
import { listJobs } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

export default async function Page() {
  return <Board jobs={await listJobs()} />;
}
