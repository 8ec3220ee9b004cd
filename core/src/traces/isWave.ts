/** Whether bytes begin as a WAV file does. */
export const isWave = (bytes: Uint8Array): boolean =>
  bytes.length >= 12 && ascii(bytes, 0) === "RIFF" && ascii(bytes, 8) === "WAVE";
const ascii = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
