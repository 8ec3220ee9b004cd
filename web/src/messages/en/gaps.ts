export const gaps = {
  "gaps.wiresAssumed":
    "{count, plural, one {1 wire is} other {# wires are}} not on the drawing: where they go is assumed",
  "gaps.firstLookAtTheDrawing": "A look at the drawing tells more than a reading",
  "gaps.theDrawingLeavesOpen": "The drawing leaves this open",
  "gaps.whereDoesItGo": "Where does the wire at {point} go?",
  "gaps.worth": "It would tell {bits} bits about the cause; about {minutes} min in the books.",
  "gaps.worthOnSheet": "It would tell {bits} bits about the cause; about {minutes} min: look on {sheet}, near {near}.",
  "gaps.hangsOn":
    "The drawing does not show where the wire at {point} goes. If it goes elsewhere ({percent} %), another cause leads.",
  "gaps.lookItUp": "Look it up first",
  "gaps.notOnTheDrawing": "Not on the drawing",
  "gaps.assumedUntilLookedUp":
    "These wires are assumed to go where those of similar parts go. They are dashed on the root map. Say where each goes once you have looked.",
  "gaps.drawThemAll": "Open the wiring",
  "gaps.workingThemOut": "Working out what each would tell…",
  "gaps.supply": "supply",
  "gaps.ground": "ground",
  "gaps.signal": "signal",
  "gaps.bits": "worth {bits} bits",
  "gaps.lookOn": "Look on {sheet}, near {near}.",
  "gaps.showThePage": "Show the page",
  "gaps.assumedNow": "assumed now",
  "gaps.elsewhere": "another place",
  "gaps.noWire": "no wire there",
  "gaps.whereItGoes": "Where it goes",
  "gaps.forExample": "For example A1:8 or S14",
  "gaps.putItDown": "Put it down in the wiring",
} as const;
