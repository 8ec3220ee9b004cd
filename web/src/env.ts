import { z } from "zod";

/** The only reader of process.env. */
const Env = z.object({
  DATABASE_URL: z.url().meta({ description: "postgres://… on loopback; scripts/start sets it" }),
  RADICULA_ROOT: z.string().min(1).meta({ description: "the project folder, for demo documents and migrations" }),
});

let known: z.infer<typeof Env> | undefined;

/** @throws when the server was started without its database; scripts/start sets both */
export function env(): z.infer<typeof Env> {
  return (known ??= Env.parse(process.env));
}
