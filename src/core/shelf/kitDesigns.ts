import type { KitDesign } from '../document/kits';
import type { SoundSettings } from '../document/sound';
import { PAD_KINDS } from '../document/soundKinds';

/** Settings that all sounds of a kit have, with what some of them are. */
function all(common: SoundSettings, some: KitDesign): KitDesign {
  return Object.fromEntries(PAD_KINDS.map((kind) => [kind, { ...common, ...some[kind] }]));
}

/** Tight, short and high: a small wooden booth. */
export const TICKET_BOOTH = all(
  { decay: -0.7, room: 0.04 },
  {
    kick: { pitch: 5, decay: -0.9, drive: 9, room: 0 },
    rim: { made: 'woodBlock', called: 'Counter', pitch: 4, decay: -0.3, level: 4 },
    snare: {
      made: 'steelSnare',
      called: 'Tight snare',
      pitch: 3,
      decay: -0.9,
      filter: 'high',
      cutoff: 190,
      level: 2.5,
    },
    clap: { made: 'slap', called: 'Slap', pitch: 3, decay: -0.4, level: 3.5 },
    closedHat: { pitch: 5, decay: -0.9, level: 3.5 },
    pedalHat: { pitch: 5, decay: -0.8, level: 3.5 },
    openHat: { pitch: 5, decay: -1.2, level: 4 },
    lowTom: { pitch: 6, decay: -0.9, level: 2 },
    midTom: { pitch: 6, decay: -0.9, level: 2 },
    highTom: { pitch: 6, decay: -0.9, level: 3 },
    crash: { pitch: 5, decay: -1.6, called: 'Splash', level: 5 },
    ride: { pitch: 5, decay: -1.3, level: 4 },
    shaker: { made: 'maraca', called: 'Maraca', pitch: 3, decay: -0.4, level: -1 },
    cowbell: { made: 'smallBell', called: 'Counter bell', decay: -0.2, level: 2.5 },
    tambourine: { pitch: 4, decay: -0.9, level: 2.5 },
    snap: { pitch: 4, decay: -0.6, level: 1 },
  },
);

/** Low, slow and dark, under a bridge. */
export const CANAL_BRICK = all(
  { room: 0.34 },
  {
    kick: { pitch: -5, decay: 0.5, drive: 10, room: 0.08, level: -2 },
    rim: { pitch: -7, decay: 0.6, filter: 'low', cutoff: 3800, level: -1.5 },
    snare: { made: 'deepSnare', called: 'Low snare', pitch: 1, filter: 'low', cutoff: 4200, drive: 8, level: -2.5 },
    clap: { pitch: -5, decay: 0.3, filter: 'low', cutoff: 3200, level: 3 },
    closedHat: { pitch: -9, decay: 0.3, filter: 'low', cutoff: 6000, room: 0.16, level: 1 },
    pedalHat: { pitch: -9, filter: 'low', cutoff: 5000, room: 0.16, level: 1.5 },
    openHat: { pitch: -9, decay: 0.3, filter: 'low', cutoff: 5600, room: 0.24, level: 1 },
    lowTom: { pitch: -6, decay: 0.4, filter: 'low', cutoff: 2400 },
    midTom: { pitch: -6, decay: 0.4, filter: 'low', cutoff: 2400, level: -0.5 },
    highTom: { pitch: -6, decay: 0.4, filter: 'low', cutoff: 2400, level: -0.5 },
    crash: { pitch: -9, decay: 0.3, filter: 'low', cutoff: 5200, level: 1 },
    ride: { pitch: -8, filter: 'low', cutoff: 5200, level: 2 },
    shaker: { pitch: -6, filter: 'low', cutoff: 5200, decay: 0.4, level: 3.5 },
    cowbell: { made: 'lowPipe', called: 'Mooring', pitch: 5, decay: -0.3, filter: 'low', cutoff: 2600, level: -1 },
    tambourine: { made: 'chain', called: 'Chain', filter: 'low', cutoff: 5000, variation: 0.3 },
    snap: { pitch: -8, decay: 0.5, filter: 'low', cutoff: 4200, level: 2.5 },
  },
);

/** Narrow, pressed and dirty: heard through a small loudspeaker. */
export const KIOSK_RADIO = all(
  { filter: 'band', cutoff: 1700, resonance: 0.7, filterVelocity: 0.5, drive: 14, room: 0.02 },
  {
    kick: { pitch: 6, cutoff: 300, resonance: 0.7, drive: 20, decay: -0.6, level: -1.5 },
    rim: { cutoff: 1500, resonance: 1.2, level: -4.5 },
    snare: { made: 'wireSnare', cutoff: 1500, drive: 18, decay: -0.4, level: 5 },
    clap: { made: 'evenClap', cutoff: 1400, decay: 0, resonance: 0.8, variation: 0.3, level: -0.5 },
    closedHat: { made: 'closedThin', cutoff: 3900, decay: -0.3, resonance: 1, level: -3 },
    pedalHat: { made: 'pedalThin', cutoff: 3300, resonance: 1, level: -5 },
    openHat: { made: 'openThin', cutoff: 3700, decay: -0.6, resonance: 1, level: -4 },
    lowTom: { made: 'lowFall', cutoff: 420, decay: -0.6, level: -1.5 },
    midTom: { made: 'midFall', cutoff: 560, decay: -0.6, level: -2.5 },
    highTom: { made: 'highFall', cutoff: 760, decay: -0.6, level: -3 },
    crash: { made: 'hissCrash', cutoff: 2800, decay: -0.8, level: -2.5 },
    ride: { cutoff: 2900, decay: -0.8, resonance: 1.2, level: -5.5 },
    shaker: { made: 'hiss', called: 'Hiss', cutoff: 3400, level: -0.5 },
    cowbell: { cutoff: 1100, resonance: 1.4, level: -6 },
    tambourine: { cutoff: 3600, resonance: 1.2, level: -2 },
    snap: { cutoff: 1900, resonance: 1.6, level: -4 },
  },
);

/** Soft and warm, struck with something wrapped in wool. */
export const COAT_CHECK = all(
  { attack: 0.004, filter: 'low', cutoff: 2600, filterVelocity: 1.5, room: 0.12 },
  {
    kick: { made: 'softKick', called: 'Felt kick', attack: 0.002, pitch: -1, cutoff: 1200, room: 0.03, level: 5 },
    rim: { made: 'lowBlock', called: 'Hanger', cutoff: 1900, level: 3.5 },
    snare: { made: 'brushSnare', called: 'Brush', cutoff: 3400, level: 7 },
    clap: { attack: 0.01, cutoff: 2200, called: 'Gloves', level: 5.5 },
    closedHat: { cutoff: 5200, attack: 0.006, pitch: -3, level: 6 },
    pedalHat: { cutoff: 4600, attack: 0.01, pitch: -3, level: 5 },
    openHat: { cutoff: 4800, attack: 0.014, pitch: -3, level: 4.5 },
    lowTom: { cutoff: 1100, level: 0.5 },
    midTom: { cutoff: 1300, level: 0.5 },
    highTom: { cutoff: 1500, level: 0.5 },
    crash: { cutoff: 3600, attack: 0.05, pitch: -3, called: 'Swell', level: 5 },
    ride: { cutoff: 3800, attack: 0.014, pitch: -2, level: 5 },
    shaker: { cutoff: 5200, attack: 0.016, called: 'Lining', variation: 0.2, level: 10.5 },
    cowbell: { made: 'jar', called: 'Tub', cutoff: 1500, pitch: 7, level: 0.5 },
    tambourine: { cutoff: 5200, attack: 0.008, called: 'Buckles', level: 7.5 },
    snap: { cutoff: 2800, variation: 0.2, decay: 0.7, attack: 0.002, level: 3.5 },
  },
);

/** Loose and rattling, each stroke another one: worn wheels, straps and plates. */
export const RENTAL_SKATES = all(
  { variation: 0.7, drive: 7 },
  {
    kick: { made: 'boxKick', called: 'Stopper', pitch: -3, drive: 12, variation: 0.5, level: 0.5 },
    rim: { made: 'lowBlock', called: 'Sole', pitch: 3, variation: 0.7, level: -4 },
    snare: { made: 'boxSnare', called: 'Strap', pitch: 2, drive: 11, variation: 0.6, level: -0.5 },
    clap: { made: 'boxSnare', called: 'Floor slap', pitch: -8, decay: -0.5, variation: 0.6, level: 4.5 },
    closedHat: { made: 'closedScrap', called: 'Bearing', pitch: -3, decay: 0.3, level: -5.5 },
    pedalHat: { made: 'pedalScrap', called: 'Buckle', pitch: 1, decay: -0.4, variation: 0.5, level: -4.5 },
    openHat: { made: 'openScrap', called: 'Loose wheel', pitch: 7, decay: -0.8, level: -3.5 },
    lowTom: { made: 'lowHand', called: 'Low boot', pitch: -3, decay: -0.6, level: -2.5 },
    midTom: { made: 'midHand', called: 'Mid boot', pitch: -4, decay: -0.6, level: -2.5 },
    highTom: { made: 'highHand', called: 'High boot', pitch: -4, decay: -0.6, level: -1 },
    crash: { made: 'sheet', called: 'Locker', pitch: 5, decay: -0.8, level: -3.5 },
    ride: { made: 'keyRing', called: 'Keys', pitch: -7, decay: 0.8, level: -6 },
    shaker: { made: 'chain', called: 'Laces', pitch: 7, decay: -0.9, variation: 0.5, level: -4 },
    cowbell: { made: 'smallBell', called: 'Bell', pitch: -4, decay: -0.6, level: -2.5 },
    tambourine: { pitch: -10, decay: 0.7, level: -4 },
    snap: { made: 'clave', called: 'Clip', pitch: -5, decay: -0.3, level: 1.5 },
  },
);

/** Long, smooth and electric: glass tubes that hum. */
export const NEON_SIGN = all(
  { room: 0.06 },
  {
    kick: { made: 'longKick', called: 'Long kick', room: 0 },
    rim: { made: 'clave', called: 'Tick', level: 1.5 },
    snare: { made: 'wireSnare', level: 2 },
    clap: { made: 'evenClap', level: 6 },
    closedHat: { made: 'closedThin', level: -0.5 },
    pedalHat: { made: 'pedalThin', level: -2 },
    openHat: { made: 'openThin', level: -2 },
    lowTom: { made: 'lowFall', level: -4.5 },
    midTom: { made: 'midFall', level: -5 },
    highTom: { made: 'highFall', level: -4.5 },
    crash: { made: 'hissCrash', level: -1.5 },
    ride: { made: 'triangle', called: 'Tube', pitch: -7, decay: -0.5, level: 2 },
    shaker: { made: 'hiss', called: 'Hiss', level: 6.5 },
    cowbell: { pitch: 5, drive: 9, decay: -0.7, level: -3.5 },
    tambourine: { made: 'maraca', called: 'Starter', pitch: 5, decay: 0.5, variation: 0.25, level: -4 },
    snap: { made: 'coin', called: 'Switch', pitch: -7, decay: -0.8, level: 8 },
  },
);

/** Hard and driven, for a dark room with a big loudspeaker. */
export const NIGHT_BUS = all(
  { drive: 8, room: 0.05 },
  {
    kick: { made: 'hardKick', called: 'Hard kick', drive: 14, room: 0.01, level: -2.5 },
    rim: { made: 'woodBlock', called: 'Stop button', pitch: -5, drive: 14, decay: -0.4, level: -6 },
    snare: { made: 'wireSnare', called: 'Doors', pitch: -3, drive: 14, decay: -0.3, level: -3.5 },
    clap: { pitch: 5, drive: 18, decay: -0.8, room: 0.16, level: -8.5 },
    closedHat: { made: 'closedThin', pitch: -10, decay: 0.1, drive: 18, level: -12.5 },
    pedalHat: { made: 'pedalThin', pitch: -10, decay: 0.1, drive: 12, level: -11 },
    openHat: { made: 'openThin', pitch: -4, decay: 0.3, drive: 18, level: -15.5 },
    lowTom: { made: 'lowFall', pitch: -4, drive: 11, decay: -0.4, level: -8.5 },
    midTom: { made: 'midFall', pitch: -4, drive: 11, decay: -0.4, level: -9 },
    highTom: { made: 'highFall', pitch: -4, drive: 11, decay: -0.4, level: -9 },
    crash: { made: 'hissCrash', pitch: -5, decay: 0.3, drive: 9, level: -8.5 },
    ride: { pitch: 4, decay: -0.6, drive: 12, level: -9 },
    shaker: { made: 'hiss', called: 'Brakes', pitch: -5, decay: -0.4, level: 2.5 },
    cowbell: { pitch: -5, drive: 18, decay: -0.4, level: -9.5 },
    tambourine: { made: 'closedScrap', called: 'Coins', pitch: 3, drive: 18, decay: 0.6, level: -14.5 },
    snap: { made: 'slap', called: 'Ticket', pitch: 7, decay: -1, drive: 14, level: -3 },
  },
);

/** Wood, clay and flat hands: a cart on the towpath. */
export const CHESTNUT_CART = all(
  { room: 0.14 },
  {
    kick: { made: 'jar', called: 'Jar', pitch: -12, decay: 0.3, drive: 5, level: 4.5 },
    rim: { made: 'clave', called: 'Clave', pitch: -7, decay: 0.4, level: 1.5 },
    snare: { made: 'boxSnare', called: 'Crate', level: 5.5 },
    clap: { made: 'slap', called: 'Hands', level: 3.5 },
    closedHat: { made: 'maraca', called: 'Chestnuts', pitch: -6 },
    pedalHat: { made: 'maraca', called: 'Husks', pitch: -12, decay: 0.4 },
    openHat: { made: 'shaker', called: 'Embers', pitch: -3, decay: 0.9, level: -0.5 },
    lowTom: { made: 'lowHand', called: 'Low palm', level: 1.5 },
    midTom: { made: 'midHand', called: 'Mid palm', level: 1 },
    highTom: { made: 'highHand', called: 'High palm', level: 3 },
    crash: { made: 'tambourine', called: 'Long jingles', decay: 0.9, pitch: -5, level: 2 },
    ride: { made: 'woodBlock', called: 'Spoon', pitch: 7, decay: -0.3, level: 5.5 },
    shaker: { called: 'Seeds', pitch: -8, decay: 0.5, level: -0.5 },
    cowbell: { made: 'lowBlock', called: 'Low block', pitch: -3, level: 5 },
    tambourine: { made: 'keyRing', called: 'Ankle bells', pitch: -9, decay: 0.5, level: -5.5 },
    snap: { made: 'scraper', called: 'Scraper', level: 8.5 },
  },
);

/** Steel that clangs and rings through a whole street. */
export const SCAFFOLD = all(
  { room: 0.22 },
  {
    kick: { made: 'bigKick', called: 'Plank', pitch: 5, decay: -1.1, drive: 12, room: 0.06, level: -3 },
    rim: { made: 'pipe', called: 'Clamp', pitch: 12, decay: -1.6, level: 0.5 },
    snare: { made: 'steelSnare', called: 'Steel snare', decay: 0.3, level: -1 },
    clap: { made: 'sheet', called: 'Tin', pitch: 3, decay: -2.2, room: 0.3, level: 5.5 },
    closedHat: { made: 'closedScrap', called: 'Bolts', pitch: -11, decay: 0.6, variation: 0.2, level: -1.5 },
    pedalHat: { made: 'pedalScrap', called: 'Washers', pitch: -12, decay: 0.6, level: -2.5 },
    openHat: { made: 'openScrap', called: 'Shaken bolts', pitch: -11, decay: 0.5, level: -1.5 },
    lowTom: { made: 'lowPipe', called: 'Low pipe', level: -1.5 },
    midTom: { made: 'midPipe', called: 'Mid pipe' },
    highTom: { made: 'pipe', called: 'High pipe', level: -0.5 },
    crash: { made: 'sheet', called: 'Sheet', pitch: -4, level: -2 },
    ride: { made: 'triangle', called: 'Spanner', pitch: -12, decay: -0.4, level: 2 },
    shaker: { made: 'chain', called: 'Chain', pitch: -2, decay: -0.4, level: -1.5 },
    cowbell: { made: 'pipe', called: 'Joint', pitch: 5, decay: -1, level: 2 },
    tambourine: { made: 'keyRing', called: 'Carabiners', pitch: -5, level: -4.5 },
    snap: { made: 'smallBell', called: 'Rivet', pitch: 12, decay: -1.4, level: 6 },
  },
);

/** Huge and slow: everything a flight of stairs away. */
export const MARBLE_STAIRS = all(
  { room: 0.5, decay: 0.3 },
  {
    kick: { made: 'bigKick', called: 'Great drum', room: 0.24 },
    rim: { made: 'woodBlock', called: 'Heel', pitch: -7, decay: 0.4, level: 1.5 },
    snare: { made: 'deepSnare', called: 'Deep snare', room: 0.5, level: -3 },
    clap: { pitch: -2, decay: 0.5, room: 0.7, level: -1.5 },
    closedHat: { pitch: -3, decay: 0.9, room: 0.4, level: -2.5 },
    pedalHat: { pitch: -5, decay: 0.8, room: 0.5, level: -3 },
    openHat: { pitch: -3, decay: 1, room: 0.5, level: -3 },
    lowTom: { made: 'lowKettle', called: 'Low kettle', decay: 0, level: -4 },
    midTom: { made: 'midKettle', called: 'Mid kettle', decay: 0, level: -4.5 },
    highTom: { made: 'highKettle', called: 'High kettle', decay: 0, level: -3.5 },
    crash: { pitch: -5, decay: 0.7, level: -1.5 },
    ride: { pitch: -4, decay: 0.6, level: -1.5 },
    shaker: { pitch: -2, decay: 0.8, level: -3 },
    cowbell: { made: 'glass', called: 'Lamp', pitch: -9, decay: 0.6 },
    tambourine: { pitch: -3, decay: 0.8, level: -2.5 },
    snap: { pitch: -3, decay: 0.7, room: 0.8, level: -2 },
  },
);

/** Tiny, high and exact: what is found in a coat. */
export const POCKET_CHANGE = all(
  { decay: -0.5, room: 0.08 },
  {
    kick: { made: 'softKick', called: 'Lining', pitch: 9, decay: -1.2, level: 7 },
    rim: { made: 'coin', called: 'Small coin', pitch: 5, decay: -1, level: 3 },
    snare: { made: 'brushSnare', called: 'Paper', pitch: 7, decay: -1.5, level: 7.5 },
    clap: { made: 'snap', called: 'Thumb', pitch: -3, variation: 0.3, drive: 8, level: -0.5 },
    closedHat: { made: 'keyRing', called: 'Key', pitch: 4, decay: -0.5, variation: 0.3, level: -3.5 },
    pedalHat: { made: 'keyRing', called: 'Two keys', pitch: 2, decay: -0.8, level: -2.5 },
    openHat: { made: 'keyRing', called: 'Key ring', pitch: 4, decay: 0.9, level: -6 },
    lowTom: { made: 'glass', called: 'Low marble', pitch: -9, decay: -1, level: 5.5 },
    midTom: { made: 'glass', called: 'Mid marble', pitch: -4, decay: -1.2, level: 5.5 },
    highTom: { made: 'glass', called: 'High marble', pitch: 1, decay: -1.4, level: 5 },
    crash: { made: 'triangle', called: 'Fork', pitch: 3, decay: 0, level: 2 },
    ride: { made: 'coin', called: 'Large coin', decay: 0.2, level: 1.5 },
    shaker: { made: 'maraca', called: 'Mints', pitch: 12, decay: -0.8, variation: 0.3, level: -1 },
    cowbell: { made: 'smallBell', called: 'Cat bell', pitch: 12, decay: -0.6, level: 1.5 },
    tambourine: { made: 'glass', called: 'Cufflink', pitch: 14, decay: -1.2, level: -0.5 },
    snap: { made: 'clave', called: 'Match', pitch: 7, decay: -0.8, level: 8.5 },
  },
);
