import { z } from "zod";
import { Case } from "./case.js";
import { Chart } from "./chart.js";
import { Notebook } from "./notebook.js";
import { RecordingFile } from "./recording.js";
import { Wiring } from "./wiring.js";

const DOCUMENTS = { wiring: Wiring, case: Case, chart: Chart, notebook: Notebook, recording: RecordingFile };

/** The published JSON Schema (draft 2020-12) of one of the open file formats, for other programs to write to. */
export function jsonSchema(of: keyof typeof DOCUMENTS): Record<string, unknown> {
  const schema = z.toJSONSchema(DOCUMENTS[of], {
    io: "input",
    reused: "ref",
  }) as Record<string, unknown>;
  return { $schema: schema["$schema"], title: `Radicula ${of} document, version 1`, ...schema };
}
