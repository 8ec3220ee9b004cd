/** Next.js runs this once as the server starts. */
export async function register(): Promise<void> {
  if (process.env["NEXT_RUNTIME"] !== "nodejs") return;
  const { becomeReady } = await import("./server/readiness");
  const { env } = await import("./env");
  await becomeReady();
  const { readiness } = await import("./server/readiness");
  const { mendSummaries } = await import("./server/repo/summaries");
  // a database that is not there yet finds them mended by who looks at the board, or at the next start
  if (readiness().isReady) {
    const { answerAllMissing } = await import("./server/answerAhead");
    const mend = () =>
      mendSummaries()
        .then(answerAllMissing)
        .catch((error: unknown) => console.error(error));
    // a spare server leaves it to the one in use until it takes over
    const { radiculaListens } = globalThis as typeof globalThis & { radiculaListens?: Promise<unknown> };
    if (radiculaListens) void radiculaListens.then(mend);
    else await mend();
  }
  if (env().RADICULA_SIGN_IN === "off") return;
  const { guard } = await import("./server/people/guard");
  const { sayHowToBegin } = await import("./server/people/first");
  Object.assign(globalThis, { radiculaGuard: guard });
  await sayHowToBegin();
}
