export default function Loading() { return <p className="muted" style={{ padding: 32 }}>Opening…</p>; }
