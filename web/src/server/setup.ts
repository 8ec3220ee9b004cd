import { readFile } from "node:fs/promises";
import { join } from "node:path";
import { migrate } from "drizzle-orm/postgres-js/migrator";
import { parseCase } from "@radicula/core";
import { z } from "zod";
import { env } from "@/env";
import { database } from "./db/connection";
import { done } from "./db/schema";
import { createJob, Hidden } from "./repo/jobs";

const DemoList = z.array(z.object({ file: z.string(), hidden: Hidden }));

/** Brings the database up to date and loads the demo jobs once. Run when the server starts. */
export async function setUpDatabase(): Promise<void> {
  const { RADICULA_ROOT } = env();
  await migrate(database(), { migrationsFolder: join(RADICULA_ROOT, "web", "drizzle") });
  const folder = join(RADICULA_ROOT, "demo");
  await database().transaction(async (tx) => {
    const first = await tx.insert(done).values({ what: "demo" }).onConflictDoNothing().returning();
    if (first.length === 0) return;
    const jobs = DemoList.parse(JSON.parse(await readFile(join(folder, "jobs.json"), "utf8")));
    // the board shows the newest first: the first of the list stands on top
    for (const { file, hidden } of jobs.reverse()) {
      const job = parseCase(await readFile(join(folder, file), "utf8"));
      if (!job.ok) throw new Error(`demo/${file} does not read: ${JSON.stringify(job.issues[0])}`);
      await createJob(job.value, { hidden, demo: true }, tx);
    }
  });
}
