import type { Config } from "drizzle-kit";

const schema = ["./src/server/db/schema.ts", "./src/server/db/people.ts"];
export default { schema, out: "./drizzle", dialect: "postgresql" } satisfies Config;
