import Link from "next/link";
import { t } from "@/messages/server";

export default function NotFound() {
  return (
    <main style={{ maxWidth: 560, margin: "18vh auto", padding: 24 }}>
      <h1 style={{ fontSize: 26, fontWeight: 700 }}>{t("pages.thereIsNothingAtThisAddress")}</h1>
      <p style={{ margin: "12px 0 20px" }}>{t("pages.theJobMayHaveBeenRemoved")}</p>
      <Link href="/">{t("pages.allJobs")}</Link>
    </main>
  );
}
