import type { Translation } from "@radicula/core/words";
import type { course as english } from "../en/course";

export const course: Translation<typeof english> = {
  "course.logbookEntry": "Protokolleintrag",
  "course.afterEntry": "nach Eintrag {n}",
  "course.suspicionAfterEachEntry": "Verdacht nach jedem Eintrag: {places}",
  "course.percent": "{id} {course} Prozent",
};
