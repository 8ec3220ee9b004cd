export const before = {
  "before.thisIsAPracticeJobWhat":
    "This is a practice job. What was hidden on purpose is not in the notebook, and real jobs do not count here.",
  "before.afterARepairThisIsNot": "After a repair this is not changed any more.",
  "before.howLikelyEachPlaceIsNow": "How likely each place is now, against no lessons: {feeds}.",
  "before.lookingInTheNotebook": "Looking in the notebook…",
  "before.openTheNotebook": "Open the notebook",
  "before.seenBefore": "Seen before",
  "before.noClosedJobHasCodesLike": "No closed job has codes like these.",
  "before.didNotLast": "Did not last",
  "before.whatHelped": "What helped",
  "before.theSameCodes": "the same codes",
  "before.on": " · on {machine}",
  "before.times": "{what} {factor} times",
  "before.allElse": "all else",
  "before.ofTheCodes": "{share} % of the codes",
  "before.jobsCountHere":
    "{count, plural, one {1 closed job of this wiring counts here} other {# closed jobs of this wiring count here}}",
  "before.jobsCanCountHere": "{count, plural, one {1 closed job} other {# closed jobs}} of this wiring can count here",
  "before.andJoin": " and ",
} as const;
