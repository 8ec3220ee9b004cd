export const course = {
  "course.logbookEntry": "logbook entry",
  "course.afterEntry": "after entry {n}",
  "course.suspicionAfterEachEntry": "Suspicion after each entry: {places}",
  "course.percent": "{id} {course} percent",
} as const;
