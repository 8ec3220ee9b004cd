export const shared = {
  "shared.noCodeNamesAPartOf": "No code names a part of this wiring yet.",
  "shared.onlyOneCircuitHasACode": "Only one circuit has a code.",
  "shared.noThreeThingsCoverAllCoded":
    "No three things cover all coded circuits: several faults, or a code about another part.",
  "shared.noOneThingIsSharedBy": "No one thing is shared by all {codedCount}. {least} together would do: {covers}.",
  "shared.andNoHealthyCircuitDoes": ", and no healthy circuit does",
  "shared.healthyCircuitsDoToo":
    "; {fewest, plural, one {one healthy circuit does too} other {# healthy circuits do too}}",
  "shared.passThrough": "{circuits} pass through {things}{more}{against}.",
  "shared.both": "Both",
  "shared.all": "All {codedCount}",
  "shared.andMore": " and {thingsCount} more",
  "shared.toJoin": " to ",
  "shared.withJoin": " with ",
} as const;
