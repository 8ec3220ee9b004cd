export const suspects = {
  "suspects.suspects": "Suspects",
  "suspects.explainsCodes": "explains codes",
  "suspects.fewer": "Fewer",
  "suspects.moreTogether": "{worthCount} more, together {share}",
  "suspects.earlierJobsCountHere":
    "{lessons, plural, one {1 earlier job counts here} other {# earlier jobs count here}}",
  "suspects.growsWhenEveryFaultInThis": " Grows when every fault in this wiring predicts the readings badly.",
  "suspects.shouldHaveSetToo": "should have set {against} too",
  "suspects.leavesTheOtherUnsetAsSeen": "leaves the other {count, plural, one {code} other {# codes}} unset, as seen",
  "suspects.noTestHereCanSeparateThese": "No test here can separate these {placesCount} places. Look at each.",
  "suspects.toldFrom": "Told from",
  "suspects.by": "by:",
  "suspects.against": "against",
  "suspects.for": "for",
} as const;
