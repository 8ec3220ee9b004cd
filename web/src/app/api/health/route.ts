import { sql } from "drizzle-orm";
import { answer, answering } from "@/server/answers";
import { database } from "@/server/db/connection";

export const dynamic = "force-dynamic";

/** Says whether the server and its database answer. */
export const GET = () =>
  answering(async () => {
    await database().execute(sql`select 1`);
    return answer({ ok: true });
  });
