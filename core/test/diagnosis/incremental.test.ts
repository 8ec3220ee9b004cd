import { assess, Predictor, type Entry } from "../../src/index.js";
import { dragged, tugVolts, tugWiring } from "../warm.js";

/** Shares of every hypothesis that matters, by fault. */
function sharesOf(predictor: Predictor, entries: readonly Entry[]): Map<string, number> {
  const { posterior } = assess(predictor, entries);
  const found = new Map([["not here", posterior.notHere]]);
  posterior.components.forEach((c) => {
    const name = `${predictor.hypotheses[c.hypothesis]!.faults.map((f) => f.id).join(" + ")} ${c.presence}`;
    if (c.share > 1e-4) found.set(name, (found.get(name) ?? 0) + c.share);
  });
  return found;
}
const alike = (a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>) => {
  for (const name of new Set([...a.keys(), ...b.keys()]))
    expect(Math.abs((a.get(name) ?? 0) - (b.get(name) ?? 0))).toBeLessThan(2e-3);
};

/** An engine that has had every logbook before this one gives what one gives that sees it for the first time. */
test("entry by entry, with one taken back, in another order: the belief is that of the whole logbook at once", () => {
  const long = new Predictor(tugWiring);
  for (let i = 1; i <= dragged.length; i++) sharesOf(long, dragged.slice(0, i));
  const odd: Entry[] = [...dragged, tugVolts("B9:1", 0.2)];
  const back: Entry[] = [...odd, { type: "undo", at: "2026-11-24T09:30:00Z", target: odd.length }];
  sharesOf(long, odd);
  alike(sharesOf(long, back), sharesOf(new Predictor(tugWiring), dragged));
  alike(sharesOf(long, odd), sharesOf(new Predictor(tugWiring), odd));
  const codes = dragged.filter((e) => e.type === "code");
  const turned = [...codes, ...dragged.filter((e) => e.type !== "code").reverse()];
  alike(sharesOf(long, turned), sharesOf(new Predictor(tugWiring), dragged));
});

test("two thousand readings of the same two pins: no verdict grows out of saying the same again", () => {
  const codes = dragged.filter((e) => e.type === "code");
  const one = [...codes, tugVolts("B7:1", 4.97, ["B9"]), tugVolts("B12:1", 0.85)];
  const again = [...codes, ...Array.from({ length: 1000 }, () => one.slice(-2)).flat()];
  const predictor = new Predictor(tugWiring);
  const share = (entries: readonly Entry[]) => Math.max(...sharesOf(predictor, entries).values());
  const many = share(again);
  expect(many).toBeLessThanOrEqual(share([...one, ...one.slice(-2)]) + 0.02);
});
