/**
 * White noise reaches up to half the sample rate: the higher the rate, the less of it lies where one hears it. This makes it as
 * loud at any rate as at 48 kHz.
 */
export function noiseGain(sampleRate: number): number {
  return Math.sqrt(sampleRate / 48000);
}

/** From the next number of a generator to a sample between -1 and 1. */
export const NOISE_SCALE = 4.656612873077393e-10;
