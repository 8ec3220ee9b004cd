import { issue, MAX_CHARACTERS, parseCase, parseJson, readWiring, type Case } from "@radicula/core";
import { answer, answering, isJson, limitedText, notJson, refuse } from "@/server/answers";
import { createJob } from "@/server/repo/jobs";

export const dynamic = "force-dynamic";

/** Takes a case, or a wiring document as the start of a new one. Nothing is saved unless all of it reads. */
export const POST = (request: Request) => answering(async () => {
  if (!isJson(request)) return notJson();
  const text = await limitedText(request, MAX_CHARACTERS);
  if (text === undefined) return refuse(413, [issue("file.too-large", [], { characters: Number(request.headers.get("content-length") ?? MAX_CHARACTERS + 1), limit: MAX_CHARACTERS })]);
  const read = parseCaseOrWiring(text);
  if (!read.ok) return refuse(422, read.issues);
  return answer({ id: await createJob(read.value) }, 201);
});

function parseCaseOrWiring(text: string) {
  const json = parseJson(text);
  if (json.ok && typeof json.value === "object" && json.value !== null && "format" in json.value && json.value.format === "radicula/wiring") {
    const wiring = readWiring(json.value);
    return wiring.ok ? { ok: true as const, value: { format: "radicula/case", version: 1, title: wiring.value.name, wiring: wiring.value, entries: [] } satisfies Case } : wiring;
  }
  return parseCase(text);
}
