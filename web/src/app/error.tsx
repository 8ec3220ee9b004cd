"use client";
import { Button } from "antd";

export default function ErrorPage({ reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <main style={{ maxWidth: 560, margin: "18vh auto", padding: 24 }}>
      <h1 style={{ fontSize: 26, fontWeight: 700 }}>This page could not be shown</h1>
      <p style={{ margin: "12px 0 20px" }}>
        The database may be out of reach. Nothing that was saved is lost, and what you typed is kept on this device.
      </p>
      <Button type="primary" onClick={reset}>
        Try again
      </Button>
    </main>
  );
}
