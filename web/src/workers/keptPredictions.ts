import { ENGINE_VERSION, keptKeys, takeCodes, takeValues, type Predictor } from "@radicula/core";

/** Not waited for longer than what it spares, ms. Judgement. */
const PATIENCE_MS = 1_500;

const asked = new WeakSet<Predictor>();

/**
 * Takes over what the server keeps of predictions for this machine, once. Without it all is worked out here.
 * @param load fetches by address
 */
export async function takeKept(predictor: Predictor, load: typeof fetch = fetch): Promise<void> {
  if (asked.has(predictor)) return;
  asked.add(predictor);
  const keys = keptKeys(predictor, ENGINE_VERSION);
  const signal = AbortSignal.timeout(PATIENCE_MS);
  const bytesOf = async (key: string): Promise<Uint8Array | undefined> => {
    const response = await load(`/api/predictions/${key}`, { signal });
    if (response.status !== 200 || !response.body) return undefined;
    const bytes = response.body.pipeThrough(new DecompressionStream("gzip"));
    return new Uint8Array(await new Response(bytes).arrayBuffer());
  };
  try {
    const [codes, values] = await Promise.all([bytesOf(keys.codes), bytesOf(keys.values)]);
    if (codes) takeCodes(predictor, codes);
    if (values) takeValues(predictor, values);
  } catch {
    // no server, a slow one, or bytes that do not read: what was taken by then is whole, the rest is worked out
  }
}
