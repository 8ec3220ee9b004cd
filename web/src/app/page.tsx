import { Board } from "@/features/board/Board";
import { listJobs } from "@/server/repo/jobs";
import { wiringChoices } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";

export default async function Page() {
  const [jobs, wirings] = await Promise.all([listJobs(), wiringChoices()]);
  return <Board jobs={jobs} wirings={wirings} />;
}
