import { sql } from "drizzle-orm";
import { answer } from "@/server/answers";
import { database } from "@/server/db/connection";
import { isDatabaseGone } from "@/server/db/gone";
import { readiness } from "@/server/readiness";

export const dynamic = "force-dynamic";

/** So far may the newest entry lie ahead of the clock before it is said, seconds. Judgement: two devices differ. */
const AHEAD = 120;

/**
 * Whether entries can be saved now: 200 where they can, 503 with the reason where not. A clock that was set back is
 * said, since entries keep their order by number and not by time.
 */
export async function GET(): Promise<Response> {
  const ready = readiness();
  if (!ready.isReady) return answer({ live: true, ready: false, why: ready.why }, 503);
  try {
    const [row] = await database().execute<{ ahead: number | null }>(
      sql`select extract(epoch from max(saved_at) - now())::float8 as ahead from entries`,
    );
    const isSetBack = (row?.ahead ?? 0) > AHEAD;
    return answer({ live: true, ready: true, ...(isSetBack ? { clock: "set-back" } : {}) });
  } catch (error) {
    return answer({ live: true, ready: false, why: isDatabaseGone(error) ? "database-gone" : "failed" }, 503);
  }
}
