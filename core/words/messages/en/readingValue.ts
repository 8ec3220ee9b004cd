export const readingValue = {
  "readingValue.atItsLowEnd": "at its low end",
  "readingValue.atItsHighEnd": "at its high end",
  "readingValue.noBeep": "no beep",
} as const;
