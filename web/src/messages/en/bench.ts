export const bench = {
  "bench.theSameMachineSimulatedWithA":
    "The same machine, simulated, with a fault nobody knows. Scan it, measure at it, find it: nothing real is touched.",
  "bench.machine": "Machine",
  "bench.whichMachine": "Which machine?",
  "bench.oneFault": "One fault",
  "bench.twoAtOnce": "Two at once",
  "bench.threeAtOnce": "Three at once",
  "bench.itComesAndGoes": "It comes and goes",
  "bench.putItOnTheBench": "Put it on the bench",
  "bench.onTheBench": "On the bench",
} as const;
