import FFT from "fft.js";
import { agreementOf, lagOf, slewOf } from "../../src/traces/agreement.js";
import { dropoutsOf } from "../../src/traces/dropouts.js";
import { signalEdges, riseTime, timingOf } from "../../src/traces/edges.js";
import { factsOf } from "../../src/traces/facts.js";
import { levelsOf } from "../../src/traces/levels.js";
import { median } from "../../src/traces/numbers.js";
import { evenChannel } from "../../src/traces/recording.js";
import { pulsesPerTurn, teethOf } from "../../src/traces/teeth.js";
import { normal, signal, square } from "./signals.js";

describe("levels and edges, against signals written by formula", () => {
  test("low and high state within 10 mV under noise, spikes and overshoot (IEEE 181: modes of the histogram)", () => {
    const wave = square(0.12, 4.93, 50, 0.3);
    const seen = levelsOf(
      signal((t) => (Math.round(t * 10_000) % 997 === 3 ? 6.5 : wave(t)), {
        seconds: 2,
        perSecond: 10_000,
        noise: 0.02,
      }),
    )!;
    expect(seen.isSwitching).toBe(true);
    expect(Math.abs(seen.low - 0.12)).toBeLessThan(0.01);
    expect(Math.abs(seen.high - 4.93)).toBeLessThan(0.01);
  });

  test("a slow sweep and noise around one level do not switch", () => {
    expect(levelsOf(signal((t) => 0.5 + 2 * t, { seconds: 2, perSecond: 1_000, noise: 0.01 }))!.isSwitching).toBe(
      false,
    );
    expect(levelsOf(signal(() => 5, { seconds: 2, perSecond: 1_000, noise: 0.01 }))!.isSwitching).toBe(false);
    expect(levelsOf(evenChannel("A", "V", 0, 1, [5, 5, 5]))).toBeUndefined();
  });

  test.each([
    [50, 0.3],
    [237, 0.5],
    [12.5, 0.82],
  ])("%d Hz at a duty of %d: edges, frequency and duty as written", (hertz, duty) => {
    const channel = signal(square(0, 5, hertz, duty), { seconds: 2, perSecond: 50_000, noise: 0.05 });
    const edges = signalEdges(channel, 0, 5);
    const timing = timingOf(edges)!;
    expect(Math.abs(timing.hertz / hertz - 1)).toBeLessThan(2e-3);
    expect(Math.abs(timing.duty - duty)).toBeLessThan(0.005);
    edges
      .filter((e) => e.rises)
      .forEach((e) => {
        const off = e.at * hertz - Math.round(e.at * hertz);
        expect(Math.abs(off) / hertz).toBeLessThan(1.5 / 50_000);
      });
  });

  test("frequency of a bent, noisy wave as the spectrum has it (fft.js, a library of its own)", () => {
    const perSecond = 4_096;
    const n = 16_384;
    const channel = signal((t) => 2.5 + 2.4 * Math.tanh(6 * Math.sin(2 * Math.PI * 61.3 * t)), {
      seconds: n / perSecond,
      perSecond,
      noise: 0.1,
    });
    const fft = new FFT(n);
    const out: number[] = fft.createComplexArray();
    fft.realTransform(
      out,
      Array.from(channel.values, (v) => v - 2.5),
    );
    let best = 1;
    const power = (k: number) => out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
    for (let k = 1; k < n / 2; k++) if (power(k) > power(best)) best = k;
    const { low, high } = levelsOf(channel)!;
    const { hertz } = timingOf(signalEdges(channel, low, high))!;
    expect(Math.abs(hertz - (best * perSecond) / n)).toBeLessThan(perSecond / n);
  });

  test("time from 10 % to 90 % of a straight ramp is 0.8 of it; of an RC it is 2.2 RC (any circuits textbook)", () => {
    const ramp = signal((t) => 5 * Math.min(1, Math.max(0, ((t * 10) % 1) / 0.02)), { seconds: 1, perSecond: 100_000 });
    expect(riseTime(ramp, 0, 5)).toBeCloseTo(0.8 * 0.002, 5);
    const rc = signal((t) => 5 * (1 - Math.exp(-((t * 10) % 1) / 0.05)), { seconds: 1, perSecond: 100_000 });
    expect(riseTime(rc, 0, 5)).toBeCloseTo(Math.log(9) * 0.005, 5);
  });

  test("noise on a slow edge makes one edge, not many", () => {
    const channel = signal((t) => 2.5 - 2.5 * Math.cos(2 * Math.PI * t), {
      seconds: 10,
      perSecond: 10_000,
      noise: 0.2,
    });
    expect(signalEdges(channel, 0, 5)).toHaveLength(20);
  });
});

describe("teeth", () => {
  const wheel = (lost: ReadonlySet<number>, speed: (tooth: number) => number = () => 100, teeth = 400) => {
    const starts: number[] = [];
    let t = 0.003;
    for (let k = 0; k < teeth; k++) {
      if (!lost.has(k)) starts.push(t);
      t += 1 / speed(k);
    }
    return signal(
      (at) => {
        let low = 0;
        let high = starts.length;
        while (low < high) {
          const middle = (low + high) >> 1;
          if (starts[middle]! <= at) low = middle + 1;
          else high = middle;
        }
        const start = starts[low - 1];
        return start !== undefined && at - start < 0.004 ? 5 : 0;
      },
      { seconds: t, perSecond: 10_000, noise: 0.5 }, // 5 V over 0.5 V: 20 dB
    );
  };

  test("of a hundred wheels with one tooth missing at 20 dB, at least 99 are found, and the right tooth", () => {
    let found = 0;
    for (let i = 0; i < 100; i++) {
      const lost = 20 + 3 * i;
      const channel = wheel(new Set([lost]), undefined, 350);
      const { low, high } = levelsOf(channel)!;
      const { faults } = teethOf(signalEdges(channel, low, high));
      if (faults.length === 1 && faults[0]!.kind === "missing" && Math.abs(faults[0]!.at - 0.003 - lost / 100) < 0.002)
        found++;
    }
    expect(found).toBeGreaterThanOrEqual(99);
  });

  test("an engine that speeds up and slows down has no missing tooth", () => {
    const channel = wheel(new Set(), (k) => 100 + 40 * Math.sin(k / 15));
    const { low, high } = levelsOf(channel)!;
    expect(teethOf(signalEdges(channel, low, high)).faults).toEqual([]);
  });

  test("a wheel of 60 less two has a gap that was made so; a tooth lost elsewhere is named", () => {
    const made = new Set(Array.from({ length: 6 }, (_, turn) => [58 + 60 * turn, 59 + 60 * turn]).flat());
    const channel = wheel(new Set([...made, 200]), undefined, 360);
    const { low, high } = levelsOf(channel)!;
    const { gap, faults } = teethOf(signalEdges(channel, low, high));
    expect(gap).toMatchObject({ missing: 2 });
    expect(faults).toEqual([expect.objectContaining({ kind: "missing", count: 1 })]);
  });

  test("a tooth broken off does not make the wheel smaller: teeth from gap to gap are counted with it", () => {
    const turns = Array.from({ length: 8 }, (_, turn) => 60 * turn);
    const channel = wheel(new Set(turns.flatMap((t) => [t + 58, t + 59, t + 20])), undefined, 480);
    const { low, high } = levelsOf(channel)!;
    expect(teethOf(signalEdges(channel, low, high))).toMatchObject({ gap: { teeth: 58, missing: 2 }, returns: true });
  });

  test("pulses counted in each turn of another channel", () => {
    const edges = signalEdges(signal(square(0, 5, 60, 0.5), { seconds: 5, perSecond: 10_000 }), 0, 5);
    const turns = signalEdges(signal(square(0, 5, 1, 0.1), { seconds: 5, perSecond: 10_000 }), 0, 5);
    pulsesPerTurn(edges, turns).forEach((n) => expect(Math.abs(n - 60)).toBeLessThanOrEqual(1));
  });
});

describe("dropouts", () => {
  test("of a thousand dropouts of three samples and more, 99 in 100 are found", () => {
    const gauss = normal(7);
    const perSecond = 1_000;
    const starts = Array.from({ length: 1_000 }, (_, i) => 0.5 + 0.37 * i + 0.1 * Math.abs(Math.sin(i)));
    const lengths = starts.map((_, i) => (3 + (i % 30)) / perSecond);
    let k = 0;
    const n = Math.round(371 * perSecond);
    const values = Float32Array.from({ length: n }, (_, i) => {
      const t = i / perSecond;
      while (k < starts.length - 1 && t >= starts[k]! + lengths[k]!) k++;
      const isOut = t >= starts[k]! - 1e-9 && t < starts[k]! + lengths[k]! - 1e-9;
      return (isOut ? 3.6 : 4.2 + 0.3 * Math.sin(t / 3)) + 0.03 * gauss();
    });
    const found = dropoutsOf(evenChannel("A", "V", 0, 1 / perSecond, values));
    const hit = starts.filter((s, i) => found.some((d) => d.from < s + lengths[i]! && d.to > s - 0.002)).length;
    expect(hit).toBeGreaterThanOrEqual(990);
    expect(found.length).toBeLessThanOrEqual(1_005);
  });

  test("an hour of clean noise at 1000 samples a second shows at most one", () => {
    const gauss = normal(3);
    const values = Float32Array.from({ length: 3_600_000 }, (_, i) => 2 + Math.sin(i / 40_000) + 0.02 * gauss());
    expect(dropoutsOf(evenChannel("A", "V", 0, 1e-3, values)).length).toBeLessThanOrEqual(1);
  });

  test("a pedal pressed and held is a step, and no dropout", () => {
    const channel = signal((t) => (t < 1 ? 0.7 : t < 1.2 ? 0.7 + 15 * (t - 1) : 3.7), {
      seconds: 4,
      perSecond: 1_000,
      noise: 0.01,
    });
    expect(dropoutsOf(channel)).toEqual([]);
  });

  test("a contact that comes and goes does not switch by itself: its leaves are listed with their depth", () => {
    const gauss = normal(5);
    const at = [0.31, 0.34, 0.9, 1.7, 1.71, 2.2];
    const channel = signal((t) => (at.some((s) => t >= s && t < s + 0.005) ? 0.1 : 5) + 0.01 * gauss(), {
      seconds: 3,
      perSecond: 2_000,
    });
    const facts = factsOf(channel);
    expect(facts.kind).toBe("steady");
    expect(facts.dropouts.length).toBe(6);
    facts.dropouts.forEach((d) => {
      expect(d.base).toBeCloseTo(5, 1);
      expect(d.value).toBeCloseTo(0.1, 1);
      expect(d.chance).toBeLessThan(1e-6);
    });
  });
});

describe("two tracks", () => {
  const sweep = (t: number) => 0.5 + 3.5 * 0.5 * (1 - Math.cos(2 * Math.PI * t * 0.5));
  test("of 200 partings of 3 sigma, 40 samples long, 198 are found; of 200 sound sweeps at most 2 show any", () => {
    const track = (seed: number, apart: number) => {
      const sweep = (t: number) => 0.5 + 2 * (1 - Math.cos(2 * Math.PI * t));
      const first = signal(sweep, { seconds: 1, perSecond: 2_000, noise: 0.01, seed });
      const isApart = (t: number) => t >= 0.4 && t < 0.42;
      const second = signal((t) => 2 * sweep(t) + (isApart(t) ? apart : 0), {
        seconds: 1,
        perSecond: 2_000,
        noise: 0.02,
        seed: seed + 10_000,
      });
      return agreementOf(first, second)!;
    };
    // both noises, on the line of the two tracks
    const sigma = Math.hypot(0.02, 2 * 0.01);
    const seeds = Array.from({ length: 200 }, (_, i) => i);
    const found = seeds.filter((i) => track(i, 3 * sigma).partings.some((p) => p.from < 0.42 && p.to > 0.4));
    const none = seeds.filter((i) => track(i + 500, 0).partings.length > 0);
    expect([found.length >= 198, none.length <= 2]).toEqual([true, true]);
  });
  test("a parting of three sigma and more is found, and none where there is none", () => {
    const first = signal(sweep, { seconds: 6, perSecond: 500, noise: 0.01, seed: 1 });
    const second = signal((t) => sweep(t) / 2 + (t > 2.5 && t < 2.54 ? 0.08 : 0), {
      seconds: 6,
      perSecond: 500,
      noise: 0.01,
      seed: 2,
    });
    const sound = signal((t) => sweep(t) / 2, { seconds: 6, perSecond: 500, noise: 0.01, seed: 2 });
    const seen = agreementOf(first, second)!;
    expect(seen.factor).toBeCloseTo(0.5, 2);
    expect(seen.partings.length).toBeGreaterThanOrEqual(1);
    const [one] = seen.partings;
    expect(one!.from).toBeGreaterThanOrEqual(2.49);
    expect(seen.partings[seen.partings.length - 1]!.to).toBeLessThanOrEqual(2.55);
    expect(one!.sigmas).toBeGreaterThan(3);
    expect(agreementOf(first, sound)!.partings).toEqual([]);
  });
  test("two tracks that run against each other have a constant sum", () => {
    const first = signal(sweep, { seconds: 4, perSecond: 200, noise: 0.005, seed: 1 });
    const against = signal((t) => 5 - sweep(t), { seconds: 4, perSecond: 200, noise: 0.005, seed: 2 });
    const seen = agreementOf(first, against)!;
    expect(seen.factor).toBeCloseTo(-1, 2);
    expect(seen.offset).toBeCloseTo(5, 1);
    expect(seen.partings).toEqual([]);
  });
  test("a track that stands still says nothing of agreement", () => {
    const still = signal(() => 2, { seconds: 1, perSecond: 100, noise: 0.01 });
    expect(agreementOf(still, still)).toBeUndefined();
  });
  test("a lag as it was written, and how fast it moves", () => {
    const first = signal((t) => Math.sin(2 * Math.PI * t) + 0.3 * Math.sin(7 * t), { seconds: 4, perSecond: 1_000 });
    const late = signal((t) => Math.sin(2 * Math.PI * (t - 0.08)) + 0.3 * Math.sin(7 * (t - 0.08)), {
      seconds: 4,
      perSecond: 1_000,
    });
    expect(lagOf(first, late)).toBeCloseTo(0.08, 2);
    expect(slewOf(signal((t) => 3 * t, { seconds: 1, perSecond: 100 }))).toBeCloseTo(3, 2);
  });
});

describe("what a recording cannot show is said", () => {
  const codes = (c: Parameters<typeof factsOf>[0]) => factsOf(c).issues.map((i) => i.code);
  test("slow, clipped, frozen, stairs, gaps, too few samples a period", () => {
    expect(codes(signal((t) => Math.sin(t), { seconds: 60, perSecond: 10, noise: 0.01 }))).toContain("trace.slow");
    expect(
      codes(signal((t) => Math.min(4, 2.5 + 2.5 * Math.sin(6 * t)), { seconds: 10, perSecond: 1_000, noise: 0 })),
    ).toContain("trace.clipped");
    const gauss = normal(2);
    expect(
      codes(signal((t) => (t > 3 ? 2 : 2 + Math.sin(t) + 0.01 * gauss()), { seconds: 10, perSecond: 1_000 })),
    ).toContain("trace.frozen");
    expect(codes(signal((t) => Math.round(10 * Math.sin(t)) / 10, { seconds: 10, perSecond: 300 }))).toContain(
      "trace.stairs",
    );
    expect(codes(signal((t) => (t % 1 < 0.1 ? NaN : t), { seconds: 10, perSecond: 300 }))).toContain("trace.gaps");
    expect(codes(signal(square(0, 5, 330, 0.5), { seconds: 2, perSecond: 1_000 }))).toContain("trace.too-few-a-period");
  });
  test("a clean square wave at a good rate is not found fault with", () => {
    expect(codes(signal(square(0.1, 4.9, 50, 0.5), { seconds: 2, perSecond: 10_000, noise: 0.02 }))).toEqual([]);
  });
});

test("the median", () => {
  expect(median([3, 1, 2])).toBe(2);
  expect(median([4, 1, 2, 3])).toBe(2.5);
  expect(median([])).toBeNaN();
});
