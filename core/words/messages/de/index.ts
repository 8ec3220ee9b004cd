import type { Translation } from "../../language.js";
import type { english } from "../en/index.js";
import { calculators } from "./calculators.js";
import { faults } from "./faults.js";
import { fileSorts } from "./fileSorts.js";
import { intake } from "./intake.js";
import { issues } from "./issues.js";
import { notebook } from "./notebook.js";
import { outcome } from "./outcome.js";
import { proof } from "./proof.js";
import { readingValue } from "./readingValue.js";
import { readings } from "./readings.js";
import { reasons } from "./reasons.js";
import { repairs } from "./repairs.js";
import { report } from "./report.js";
import { runs } from "./runs.js";
import { shared } from "./shared.js";
import { shares } from "./shares.js";
import { stimulus } from "./stimulus.js";
import { tests } from "./tests.js";
import { traces } from "./traces.js";

/** Every message in German. */
export const german: Translation<typeof english> = {
  ...calculators,
  ...faults,
  ...fileSorts,
  ...intake,
  ...issues,
  ...notebook,
  ...outcome,
  ...proof,
  ...readingValue,
  ...readings,
  ...reasons,
  ...repairs,
  ...report,
  ...runs,
  ...shared,
  ...shares,
  ...stimulus,
  ...tests,
  ...traces,
};
