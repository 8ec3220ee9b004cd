import { z } from "zod";

/** The only reader of process.env. */
const Env = z.object({
  DATABASE_URL: z.url().meta({ description: "postgres://…, as the role the server works as; scripts/start sets it" }),
  DATABASE_OWNER_URL: z
    .url()
    .optional()
    .meta({ description: "the same database as its owner, who brings it up to date; else DATABASE_URL does" }),
  RADICULA_ROOT: z.string().min(1).meta({ description: "the project folder, for demo documents and migrations" }),
});

let known: z.infer<typeof Env> | undefined;

/** @throws when the server was started without its database; scripts/start sets both */
export function env(): z.infer<typeof Env> {
  return (known ??= Env.parse(process.env));
}
