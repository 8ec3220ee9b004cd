import { findNets, type Candidate, type Wiring } from "@radicula/core";

/** How a value sounds: an octave from the least to the most seen, and a click on a jump. */
export interface Tone {
  sound(value: number): void;
  click(): void;
  stop(): void;
}

/**
 * A signal or reference of a module is a few volts, whatever the machine; a feed goes a little above the battery, volt.
 */
const SIGNAL_VOLT = 5.5;
const ABOVE_NOMINAL = 1.2;

/** The range a tone spans at least while a point is watched: from zero to what stands there on a sound machine. */
export function toneRange(wiring: Wiring, { points }: Pick<Candidate, "points">): readonly [number, number] {
  const isFeed = points.some((p) => findNets(wiring).functionOf(p) === "feed");
  return [0, isFeed ? ABOVE_NOMINAL * wiring.nominalVolt : SIGNAL_VOLT];
}

const LOW_HZ = 220;
const OCTAVES = 2;
/** Frequency for a value between two ends, hertz; the middle where the ends meet. */
export function frequencyOf(value: number, low: number, high: number): number {
  const t = high - low > 1e-9 ? Math.min(1, Math.max(0, (value - low) / (high - low))) : 0.5;
  return LOW_HZ * 2 ** (OCTAVES * t);
}

/**
 * A tone that follows a value, made by the browser; silent where it has no sound.
 * @param ends the range it spans at least
 */
export function makeTone(ends: readonly [number, number]): Tone {
  const Context = window.AudioContext;
  if (!Context) return { sound: () => undefined, click: () => undefined, stop: () => undefined };
  const audio = new Context();
  const voice = audio.createOscillator();
  const loud = audio.createGain();
  let [low, high] = ends;
  voice.type = "triangle";
  loud.gain.value = 0.08;
  voice.connect(loud).connect(audio.destination);
  voice.start();
  return {
    sound(value) {
      low = Math.min(low, value);
      high = Math.max(high, value);
      voice.frequency.setTargetAtTime(frequencyOf(value, low, high), audio.currentTime, 0.03);
    },
    click() {
      const tick = audio.createOscillator();
      const gain = audio.createGain();
      tick.type = "square";
      tick.frequency.value = 1800;
      gain.gain.setValueAtTime(0.2, audio.currentTime);
      gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + 0.06);
      tick.connect(gain).connect(audio.destination);
      tick.start();
      tick.stop(audio.currentTime + 0.07);
    },
    stop() {
      voice.stop();
      void audio.close();
    },
  };
}
