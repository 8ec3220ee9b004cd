/** Next.js runs this once as the server starts. */
export async function register(): Promise<void> {
  if (process.env["NEXT_RUNTIME"] !== "nodejs") return;
  const { setUpDatabase } = await import("./server/setup");
  await setUpDatabase();
}
