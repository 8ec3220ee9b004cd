export const stimulus = {
  "stimulus.at": "{id} at {value}",
  "stimulus.steelAtTheTipOf": "steel at the tip of {id}",
  "stimulus.noSteelAtTheTipOf": "no steel at the tip of {id}",
  "stimulus.at2": "{id} at {value} %",
  "stimulus.at3": "{id} at {value}",
} as const;
