import { madeKit, POLISHED_FLOOR } from '../document/kits';
import type { MadeSound, SoundSettings } from '../document/sound';
import { MADE_SOUNDS } from '../document/sound';
import type { Shelved } from './shelved';

type Settings = Partial<Record<MadeSound, SoundSettings>>;

/** Settings that all sounds of a kit have, with those of some of them. */
function all(common: SoundSettings, some: Settings): Settings {
  return Object.fromEntries(MADE_SOUNDS.map((made) => [made, { ...common, ...some[made] }]));
}

/** Tight, short and high: a small wooden booth. */
const TICKET_BOOTH = all(
  { decay: -0.7, room: 0.04 },
  {
    kick: { pitch: 3, decay: -1.1, drive: 9, room: 0 },
    rim: { pitch: 2, level: 3 },
    snare: { pitch: 3.5, decay: -0.9, filter: 'high', cutoff: 190, level: 1 },
    clap: { decay: -0.9, level: 3 },
    closedHat: { pitch: 2, decay: -0.8, level: 5 },
    pedalHat: { pitch: 2, level: 4 },
    openHat: { pitch: 2, decay: -1, level: 2 },
    lowTom: { pitch: 4 },
    midTom: { pitch: 4 },
    highTom: { pitch: 4 },
    crash: { decay: -1.5 },
    ride: { pitch: 3, decay: -1 },
    shaker: { decay: -0.5, level: 5 },
    snap: { pitch: 2, level: 5 },
  },
);

/** Low, slow and dark, under a bridge. */
const CANAL_BRICK = all(
  { room: 0.32 },
  {
    kick: { pitch: -4, decay: 0.45, drive: 10, room: 0.06 },
    rim: { pitch: -5, decay: 0.3 },
    snare: { pitch: -4, decay: 0.3, filter: 'low', cutoff: 6200, drive: 8 },
    clap: { pitch: -4, filter: 'low', cutoff: 4800, level: 4 },
    closedHat: { pitch: -5, filter: 'low', cutoff: 9000, level: 6, room: 0.12 },
    pedalHat: { pitch: -5, filter: 'low', cutoff: 8000, level: 4, room: 0.12 },
    openHat: { pitch: -6, filter: 'low', cutoff: 8400, level: 3, room: 0.2 },
    lowTom: { pitch: -6, decay: 0.3 },
    midTom: { pitch: -6, decay: 0.3 },
    highTom: { pitch: -6, decay: 0.3 },
    crash: { pitch: -7, filter: 'low', cutoff: 7000 },
    ride: { pitch: -7, filter: 'low', cutoff: 7000 },
    shaker: { pitch: -4, filter: 'low', cutoff: 7500, level: 6 },
    cowbell: { pitch: -9, decay: 0.4 },
    tambourine: { pitch: -5, filter: 'low', cutoff: 8000, level: 4 },
    snap: { pitch: -7, level: 4 },
  },
);

/** Narrow, pressed and dirty: heard through a small loudspeaker. */
const KIOSK_RADIO = all(
  { filter: 'band', cutoff: 1500, resonance: 0.6, drive: 14, room: 0.02 },
  {
    kick: { pitch: 5, cutoff: 420, resonance: 0.8, drive: 20, decay: -0.6 },
    snare: { cutoff: 1800, drive: 16, decay: -0.4 },
    closedHat: { cutoff: 4200, level: 4, decay: -0.3 },
    pedalHat: { cutoff: 3800, level: 4 },
    openHat: { cutoff: 4200, decay: -0.8, level: 2 },
    crash: { cutoff: 3600, decay: -1 },
    ride: { cutoff: 3600, decay: -0.6 },
    shaker: { cutoff: 4000, level: 5 },
    tambourine: { cutoff: 4200, level: 3 },
    lowTom: { cutoff: 500 },
    midTom: { cutoff: 700 },
    highTom: { cutoff: 900 },
  },
);

/** Soft and warm, struck with something wrapped in wool. */
const COAT_CHECK = all(
  { attack: 0.004, filter: 'low', cutoff: 3200, filterVelocity: 1.2, room: 0.12 },
  {
    kick: { attack: 0.004, pitch: -2.5, cutoff: 520, decay: 0.3, drive: 2, room: 0.02 },
    rim: { cutoff: 2600 },
    snare: { pitch: -2, cutoff: 3600, decay: -0.2, level: 1 },
    clap: { attack: 0.008, cutoff: 3000, level: 3 },
    closedHat: { cutoff: 8200, attack: 0.006, level: 5 },
    pedalHat: { cutoff: 7200, attack: 0.008, level: 4 },
    openHat: { cutoff: 7600, attack: 0.01, level: 2 },
    crash: { cutoff: 5200, attack: 0.03 },
    ride: { cutoff: 5600, attack: 0.008 },
    shaker: { cutoff: 7000, attack: 0.012, level: 6 },
    tambourine: { cutoff: 7000, level: 3 },
    cowbell: { pitch: -4, cutoff: 2400 },
    snap: { cutoff: 4200, level: 4 },
  },
);

/** Loose and rattling, each stroke another one: worn wheels, straps and plates. */
const RENTAL_SKATES = all(
  { variation: 0.9, drive: 6 },
  {
    kick: { pitch: 1.5, decay: -0.5, variation: 0.5, drive: 12 },
    rim: { pitch: 4, level: 4 },
    snare: { pitch: 5, decay: 0.2, drive: 10, variation: 0.7 },
    clap: { pitch: 3, level: 4 },
    closedHat: { pitch: 7, decay: -0.4, level: 5 },
    pedalHat: { pitch: 7, level: 4 },
    openHat: { pitch: 6, decay: -0.2, level: 2 },
    lowTom: { pitch: 2, decay: -0.8 },
    midTom: { pitch: 2, decay: -0.8 },
    highTom: { pitch: 2, decay: -0.8 },
    shaker: { pitch: 3, level: 8 },
    cowbell: { pitch: 6, decay: -0.4 },
    tambourine: { pitch: -3, decay: 0.3, level: 6 },
    snap: { pitch: 5, level: 6 },
  },
);

/** The kits that ship with the app, all of them made here. */
export const SHIPPED_KITS: readonly Shelved[] = [
  { id: 'polished-floor', name: 'Polished Floor', tags: ['dry', 'round', 'acoustic', 'all-round'], tempo: 112, kit: POLISHED_FLOOR }, // prettier-ignore
  { id: 'ticket-booth', name: 'Ticket Booth', tags: ['dry', 'tight', 'short', 'bright'], tempo: 126, kit: madeKit('Ticket Booth', TICKET_BOOTH) }, // prettier-ignore
  { id: 'canal-brick', name: 'Canal Brick', tags: ['dark', 'low', 'long', 'roomy'], tempo: 84, kit: madeKit('Canal Brick', CANAL_BRICK) }, // prettier-ignore
  { id: 'kiosk-radio', name: 'Kiosk Radio', tags: ['dirty', 'narrow', 'lo-fi', 'short'], tempo: 92, kit: madeKit('Kiosk Radio', KIOSK_RADIO) }, // prettier-ignore
  { id: 'coat-check', name: 'Coat Check', tags: ['soft', 'warm', 'dark', 'quiet'], tempo: 76, kit: madeKit('Coat Check', COAT_CHECK) }, // prettier-ignore
  { id: 'rental-skates', name: 'Rental Skates', tags: ['rattling', 'bright', 'loose', 'dirty'], tempo: 104, kit: madeKit('Rental Skates', RENTAL_SKATES) }, // prettier-ignore
];
