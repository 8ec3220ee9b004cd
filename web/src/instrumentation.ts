/** Next.js runs this once as the server starts. */
export async function register(): Promise<void> {
  if (process.env["NEXT_RUNTIME"] !== "nodejs") return;
  const { becomeReady } = await import("./server/readiness");
  await becomeReady();
}
