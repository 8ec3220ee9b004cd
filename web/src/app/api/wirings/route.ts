import { cutText, issue, MAX_CHARACTERS, readChart, readCsv, type Chart, type Issue } from "@radicula/core";
import { z } from "zod";
import { answer, answering, jsonBody, refuse } from "@/server/answers";
import { database } from "@/server/db/connection";
import { copyPhotos } from "@/server/repo/photos";
import { blankChart, createWiring, findWiring, WiringId } from "@/server/repo/wirings";
import { savedUnlessStopped } from "@/server/savedUnlessStopped";

export const dynamic = "force-dynamic";
const New = z.union([
  z.strictObject({ copyOf: WiringId }),
  z.strictObject({
    name: z.string().max(120),
    machineType: z.string().max(80).default(""),
    nominalVolt: z.union([z.literal(12), z.literal(24)]).default(12),
  }),
  z.strictObject({ csv: z.string(), name: z.string().max(120) }),
]);

/** A new wiring: empty, a copy, or from a wiring, chart or CSV file. Nothing is kept unless all of it reads. */
export const POST = (request: Request) =>
  answering(async () => {
    const sent = await jsonBody(request, MAX_CHARACTERS);
    if (!sent.ok) return sent.refused;
    const asked = New.safeParse(sent.value);
    let chart: Chart;
    let issues: readonly Issue[] | undefined;
    if (!asked.success) {
      const read = readChart(sent.value);
      if (!read.ok) return refuse(422, read.issues);
      chart = read.value;
    } else if ("copyOf" in asked.data) {
      const from = await findWiring(asked.data.copyOf);
      if (!from) return refuse(404, [issue("server.no-such-wiring")]);
      const copy = { ...from.draft, name: cutText(`${from.draft.name} (copy)`, 120) };
      const id = await database().transaction(async (tx) => {
        const made = await createWiring(copy, tx);
        await copyPhotos(from.id, made, tx);
        return made;
      });
      return answer({ id }, 201);
    } else if ("csv" in asked.data) {
      const read = readCsv(asked.data.csv);
      if (!read.ok) return refuse(422, read.issues);
      chart = { ...read.value.chart, name: read.value.chart.name || asked.data.name };
      issues = read.value.issues;
    } else chart = blankChart(asked.data.name, asked.data.machineType, asked.data.nominalVolt);
    return savedUnlessStopped(request, async (tx) => ({
      id: await createWiring(chart, tx),
      ...(issues ? { issues } : {}),
    }));
  });
