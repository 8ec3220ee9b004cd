import { z } from "zod";

const LOOPBACK = /^(?:localhost|127\.0\.0\.1|\[::1\])$/;
/** Several hosts may be named, of which one is the primary: no URL by the letter, so its parts are taken by hand. */
const DatabaseUrl = z.string().refine(
  (text) => {
    const hosts = /^postgres(?:ql)?:\/\/(?:[^@/]*@)?([^/?]+)/.exec(text)?.[1]?.split(",");
    return hosts?.every((h) => LOOPBACK.test(h.replace(/:\d+$/, ""))) || /[?&]sslmode=(?:require|verify-)/.test(text);
  },
  { error: "no postgres://… address; one of another machine needs ?sslmode=verify-full (or require)" },
);

/** The only reader of process.env but for web/server.mjs, which is not part of the build. */
const Env = z.object({
  DATABASE_URL: DatabaseUrl.meta({
    description: "postgres://…, as the role the server works as; scripts/start sets it",
  }),
  DATABASE_OWNER_URL: DatabaseUrl.optional().meta({
    description: "the same database as its owner, who brings it up to date; else DATABASE_URL does",
  }),
  RADICULA_ROOT: z.string().min(1).meta({ description: "the project folder, for demo documents and migrations" }),
  RADICULA_SIGN_IN: z.enum(["on", "off"]).default("off").meta({
    description: "whether people sign in; web/server.mjs sets it on as soon as others than this machine can come in",
  }),
  RADICULA_OIDC_ISSUER: z.url().optional().meta({ description: "the company's own sign-in (OpenID Connect)" }),
  RADICULA_OIDC_CLIENT_ID: z.string().optional(),
  RADICULA_OIDC_CLIENT_SECRET: z.string().optional(),
});

let known: z.infer<typeof Env> | undefined;

/** @throws when the server was started without its database; scripts/start sets both */
export function env(): z.infer<typeof Env> {
  return (known ??= Env.parse(process.env));
}
