import { z } from "zod";
import { Case } from "./case.js";
import { Chart } from "./chart.js";
import { Wiring } from "./wiring.js";

/** The published JSON Schema (draft 2020-12) of one of the open file formats, for other programs to write to. */
export function jsonSchema(of: "wiring" | "case" | "chart"): Record<string, unknown> {
  const schema = z.toJSONSchema(of === "wiring" ? Wiring : of === "chart" ? Chart : Case, {
    io: "input",
    reused: "ref",
  }) as Record<string, unknown>;
  return { $schema: schema["$schema"], title: `Radicula ${of} document, version 1`, ...schema };
}
