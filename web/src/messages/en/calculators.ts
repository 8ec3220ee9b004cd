export const calculators = {
  "calculators.check": "Check",
  "calculators.to": "{typed} to {typed2}",
  "calculators.nothingFollowsFromTheseValues": "nothing follows from these values",
  "calculators.calculators": "Calculators",
  "calculators.at": "{names} {short} {unitY} at {names2} {short2} {unitX}",
  "calculators.curve": "Curve: {said}{outside}",
  "calculators.outsideWhatIsDrawn": ", outside what is drawn",
  "calculators.asATable": "As a table",
} as const;
