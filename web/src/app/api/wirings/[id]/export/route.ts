import { buildChart, graphml, issue, writeCsv } from "@radicula/core";
import { z } from "zod";
import { answering, refuse } from "@/server/answers";
import { fileName } from "@/ui/text";
import { spiceOf } from "@/server/spice";
import { findRevision, findWiring, WiringId } from "@/server/repo/wirings";

export const dynamic = "force-dynamic";
const Form = z.enum(["wiring", "chart", "csv", "graphml", "spice"]);
const TYPES = {
  wiring: ["application/json", "wiring.json"],
  chart: ["application/json", "chart.json"],
  csv: ["text/csv; charset=utf-8", "csv"],
  graphml: ["application/xml", "graphml"],
  spice: ["text/plain; charset=utf-8", "cir"],
} as const;

/** The wiring as ?as=wiring, chart, csv, graphml or spice; of ?revision=N, or as it stands. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answering(async () => {
    const id = WiringId.safeParse((await params).id);
    const query = new URL(request.url).searchParams;
    const form = Form.safeParse(query.get("as") ?? "wiring");
    const number = z.coerce
      .number()
      .int()
      .min(1)
      .max(2 ** 31 - 1)
      .safeParse(query.get("revision") ?? undefined);
    if (!id.success || !form.success) return refuse(404, [issue("server.no-such-wiring")]);
    const revision = number.success ? await findRevision(id.data, number.data) : undefined;
    const chart = revision?.chart ?? (await findWiring(id.data))?.draft;
    if (!chart) return refuse(404, [issue("server.no-such-wiring")]);
    const wiring = () => revision?.wiring ?? buildChart(chart).wiring;
    const text = {
      wiring: () => json(wiring()),
      chart: () => json(chart),
      csv: () => `\uFEFF${writeCsv(chart).text}`,
      graphml: () => graphml(wiring()),
      spice: () => spiceOf(wiring()),
    }[form.data]();
    const [type, ending] = TYPES[form.data];
    const name = fileName(chart.name, "wiring");
    return new Response(text, {
      headers: {
        "Content-Type": type,
        "Cache-Control": "no-store",
        "Content-Disposition": `attachment; filename="${name}.${ending}"`,
      },
    });
  });
const json = (value: unknown) => `${JSON.stringify(value, null, 1)}\n`;
