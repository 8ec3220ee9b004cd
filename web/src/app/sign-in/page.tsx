import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { env } from "@/env";
import { SignInPage } from "@/features/people/SignInPage";
import { hasCompanySignIn } from "@/server/people/auth";
import { anyAdministrator } from "@/server/people/repo";
import { t } from "@/messages/server";

export const dynamic = "force-dynamic";
export const generateMetadata = (): Metadata => ({ title: t("pages.signIn") });

/** Only a path of ours: nobody is led elsewhere by a link to this page. */
const isOurPath = (to: string) => /^\/(?![/\\])[^\\\s]*$/.test(to);

interface Query {
  readonly to?: string | string[];
  readonly refused?: string;
  readonly error?: string;
}
export default async function Page({ searchParams }: { readonly searchParams: Promise<Query> }) {
  const { to, refused, error } = await searchParams;
  const target = typeof to === "string" && isOurPath(to) ? to : "/";
  if (env().RADICULA_SIGN_IN === "off") redirect(target);
  return (
    <SignInPage
      to={target}
      hasCompany={hasCompanySignIn()}
      hasNobody={!(await anyAdministrator())}
      wasRefused={refused !== undefined || error !== undefined}
    />
  );
}
