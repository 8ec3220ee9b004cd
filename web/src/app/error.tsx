"use client";
import { Button } from "antd";
import { t } from "@/messages";

export default function ErrorPage({ reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main style={{ maxWidth: 560, margin: "18vh auto", padding: 24 }}>
      <h1 style={{ fontSize: 26, fontWeight: 700 }}>{t("pages.thisPageCouldNotBeShown")}</h1>
      <p style={{ margin: "12px 0 20px" }}>{t("pages.theDatabaseMayBeOutOf")}</p>
      <Button type="primary" onClick={reset}>
        {t("pages.tryAgain")}
      </Button>
    </main>
  );
}
