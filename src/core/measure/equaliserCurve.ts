import { MIX_RANGES, type ChannelSettings } from '../document/mix';
import { HIGH_SHELF_HZ, LOW_SHELF_HZ, SHELF_Q } from '../sound/mix/shelves';

/** At which rate the picture is drawn: near half of it, curves of other rates differ a little. */
const RATE = 48000;

type Polynomial = readonly [number, number, number];

/**
 * What a channel's equaliser adds at a frequency, dB: the filters of R. Bristow-Johnson's Audio EQ Cookbook, which those of the sound are equal to.
 * @example equaliserDb({ bell: 6, bellHz: 1000 }, 1000) // 6
 */
export function equaliserDb(settings: ChannelSettings, hz: number): number {
  const { low = 0, bell = 0, high = 0 } = settings;
  const { bellHz = MIX_RANGES.bellHz.neutral, bellQ = MIX_RANGES.bellQ.neutral } = settings;
  let dB = 0;
  if (low !== 0) dB += shelf(LOW_SHELF_HZ, low, 1, hz);
  if (high !== 0) dB += shelf(HIGH_SHELF_HZ, high, -1, hz);
  if (bell !== 0) dB += bellDb(bellHz, bell, bellQ, hz);
  return dB;
}

/** @param side 1 for a low shelf, -1 for a high one */
function shelf(at: number, dB: number, side: 1 | -1, hz: number): number {
  const a = 10 ** (dB / 40);
  const turn = (2 * Math.PI * at) / RATE;
  const c = side * Math.cos(turn);
  const s = (2 * Math.sqrt(a) * Math.sin(turn)) / (2 * SHELF_Q);
  return ratio(
    [a * (a + 1 - (a - 1) * c + s), side * 2 * a * (a - 1 - (a + 1) * c), a * (a + 1 - (a - 1) * c - s)],
    [a + 1 + (a - 1) * c + s, side * -2 * (a - 1 + (a + 1) * c), a + 1 + (a - 1) * c - s],
    hz,
  );
}

function bellDb(at: number, dB: number, q: number, hz: number): number {
  const a = 10 ** (dB / 40);
  const turn = (2 * Math.PI * at) / RATE;
  const alpha = Math.sin(turn) / (2 * q);
  const middle = -2 * Math.cos(turn);
  return ratio([1 + alpha * a, middle, 1 - alpha * a], [1 + alpha / a, middle, 1 - alpha / a], hz);
}

/** Of two polynomials in z^-1, on the unit circle, dB. */
function ratio(above: Polynomial, below: Polynomial, hz: number): number {
  const turn = (2 * Math.PI * hz) / RATE;
  const power = ([p0, p1, p2]: Polynomial) =>
    (p0 + p1 * Math.cos(turn) + p2 * Math.cos(2 * turn)) ** 2 + (p1 * Math.sin(turn) + p2 * Math.sin(2 * turn)) ** 2;
  return 10 * Math.log10(power(above) / power(below));
}
