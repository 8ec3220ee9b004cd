import Link from "next/link";

export default function NotFound() {
  return (
    <main style={{ maxWidth: 560, margin: "18vh auto", padding: 24 }}>
      <h1 style={{ fontSize: 26, fontWeight: 700 }}>There is nothing at this address</h1>
      <p style={{ margin: "12px 0 20px" }}>The job may have been removed, or the address was cut short.</p>
      <Link href="/">All jobs</Link>
    </main>
  );
}
