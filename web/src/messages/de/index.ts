import type { Translation } from "@radicula/core/words";
import type { english } from "../en";
import { before } from "./before";
import { bench } from "./bench";
import { board } from "./board";
import { calculators } from "./calculators";
import { codes } from "./codes";
import { course } from "./course";
import { disturbed } from "./disturbed";
import { drawing } from "./drawing";
import { gaps } from "./gaps";
import { grid } from "./grid";
import { intake } from "./intake";
import { job } from "./job";
import { library } from "./library";
import { logbook } from "./logbook";
import { map } from "./map";
import { matrix } from "./matrix";
import { meter } from "./meter";
import { notebook } from "./notebook";
import { pages } from "./pages";
import { paper } from "./paper";
import { people } from "./people";
import { policy } from "./policy";
import { problems } from "./problems";
import { profile } from "./profile";
import { proof } from "./proof";
import { reading } from "./reading";
import { recording } from "./recording";
import { report } from "./report";
import { revealed } from "./revealed";
import { runs } from "./runs";
import { scan } from "./scan";
import { seen } from "./seen";
import { session } from "./session";
import { site } from "./site";
import { suspects } from "./suspects";
import { ui } from "./ui";
import { watch } from "./watch";
import { wiring } from "./wiring";

/** Every message in German. */
export const german: Translation<typeof english> = {
  ...before,
  ...bench,
  ...board,
  ...calculators,
  ...codes,
  ...course,
  ...disturbed,
  ...drawing,
  ...gaps,
  ...grid,
  ...intake,
  ...job,
  ...library,
  ...logbook,
  ...map,
  ...matrix,
  ...meter,
  ...notebook,
  ...pages,
  ...paper,
  ...people,
  ...policy,
  ...problems,
  ...profile,
  ...proof,
  ...reading,
  ...recording,
  ...report,
  ...revealed,
  ...runs,
  ...scan,
  ...seen,
  ...session,
  ...site,
  ...suspects,
  ...ui,
  ...watch,
  ...wiring,
};
