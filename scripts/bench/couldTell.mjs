// Whether any reading could tell one fault from another: asked of the circuit, not of the planner.

/** A meter tells two values apart from here on: three times what a reading is judged by, volt, share, ratio of ohms. */
const APART_VOLT = 0.09;
const APART_SHARE = 0.036;
const APART_OHMS = 1.5;
const OHM_FLOOR = 1;

/**
 * @param truth the hidden fault: `id` and `severity` @param ids faults of another repair, at once
 * @returns true where some place, plugged or with a plug of either off, shows the two apart whatever the severity of
 * the other
 */
export function couldTell(predictor, truth, ids) {
  const numberOf = (id) => predictor.faults.findIndex((f) => f.id === id) + 1;
  const own = numberOf(truth.id);
  if (ids.length !== 1) return false;
  const other = numberOf(ids[0]);
  if (own === 0 || other === 0 || own === other) return false;
  const plugs = [...new Set([own, other].flatMap((h) => plugsAt(predictor, h)))];
  const states = [
    { key: "on", unplugged: [] },
    ...plugs.map((p) => ({ key: "on", unplugged: [p] })),
    ...plugs.map((p) => ({ key: "off", unplugged: [p] })),
  ];
  return states.some((state) => tellsIn(predictor, own, truth.severity, other, state));
}

function plugsAt(predictor, h) {
  const { place } = predictor.faults[h - 1];
  const { connectors, wires, devices } = predictor.wiring;
  const isPlug = (id) => connectors.some((c) => c.id === id);
  const of = (p) => p.split(":")[0];
  const wire = wires.find((w) => (w.id ?? `${w.from}~${w.to}`) === place.id);
  const device = devices.find((d) => d.id === place.id);
  const pins = device && device.kind !== "module" && device.pins ? Object.values(device.pins) : [];
  return [of(place.id), ...(wire ? [of(wire.from), of(wire.to)] : []), ...pins.map(of)].filter(isPlug);
}

function tellsIn(predictor, own, severity, other, state) {
  const instrument = state.key === "off" ? "ohmmeter" : "voltmeter";
  const { draws } = predictor;
  const mine = predictor.predict(own, state, instrument);
  const theirs = predictor.predict(other, state, instrument);
  const at = nearest(predictor, own, severity) * draws;
  const steps = theirs.length / draws;
  return predictor.points.some((_, place) => {
    let told = 0;
    for (let d = 0; d < draws; d++) {
      const value = mine[at + d][place];
      let all = true;
      for (let s = 0; s < steps && all; s++) all = isApart(value, theirs[s * draws + d][place], instrument);
      if (all) told++;
    }
    return told === draws;
  });
}
function nearest(predictor, h, severity) {
  const list = predictor.hypotheses[h].severities;
  const off = (x) => Math.abs(Math.log((x || 1e-9) / (severity || 1e-9)));
  return list.length < 2 ? 0 : list.reduce((best, x, i) => (off(x) < off(list[best]) ? i : best), 0);
}
function isApart(a, b, instrument) {
  if (Number.isNaN(a) || Number.isNaN(b)) return false;
  if (a === Infinity || b === Infinity) return a !== b;
  if (instrument === "ohmmeter") return Math.abs(Math.log((a + OHM_FLOOR) / (b + OHM_FLOOR))) > Math.log(APART_OHMS);
  return Math.abs(a - b) > Math.max(APART_VOLT, APART_SHARE * Math.abs(a));
}
