export const session = {
  "session.findOutWhich": "Find out which",
  "session.stillComparingTests": " (still comparing tests)",
  "session.insteadOfEntry": "Instead of entry {corrects}",
  "session.anotherReading": "Another reading",
  "session.nextStepOfThisTest": "Next step of this test",
  "session.onceMoreEntryDoesNotFit": "Once more: entry {again} does not fit",
  "session.confirm": "Confirm",
  "session.nextReading": "Next reading",
} as const;
