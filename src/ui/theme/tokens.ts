/** Colours of the product, dark and light, by what they mean. */
export interface Tokens {
  /** Page. */
  ground: string;
  /** Surfaces. */
  slate: string;
  /** Surfaces on surfaces: cells, tracks of strips. */
  deep: string;
  /** Secondary: rulers and idle controls. Readable as text on ground and slate. */
  cap: string;
  /** Primary: what sounds now. */
  breast: string;
  /** Surface of what is switched on. */
  warm: string;
  /** Text on breast. */
  onBreast: string;
  /** Text, wing bars, the playhead. */
  wing: string;
  /** What is placed; confirmations. */
  moss: string;
  /** What is waiting, always with its number. */
  straw: string;
  onStraw: string;
  /** Recording and destructive, always with the word: as text and outline. */
  berry: string;
  /** And as a fill. */
  berryFill: string;
  onBerry: string;
  /** Thin rules. */
  rule: string;
  /** Outline of what can be pressed: of the surface's own colour, but for high contrast. */
  edge: string;
}

export const dark: Tokens = {
  ground: '#14191F',
  slate: '#1F2831',
  deep: '#10151A',
  cap: '#8FABC1',
  breast: '#DE7B4F',
  warm: '#573A2B',
  onBreast: '#14191F',
  wing: '#F5F0E6',
  moss: '#93B266',
  straw: '#E4BC62',
  onStraw: '#14191F',
  berry: '#E8798A',
  berryFill: '#BA394D',
  onBerry: '#FFFFFF',
  rule: '#32404D',
  edge: '#1F2831',
};

export const light: Tokens = {
  ground: '#F1EDE4',
  slate: '#FFFDF8',
  deep: '#E3DED2',
  cap: '#46627A',
  breast: '#D87443',
  warm: '#F6D6C4',
  onBreast: '#14191F',
  wing: '#1B232B',
  moss: '#557526',
  straw: '#E4BC62',
  onStraw: '#14191F',
  berry: '#A82F42',
  berryFill: '#A82F42',
  onBerry: '#FFFDF8',
  rule: '#C9C2B3',
  edge: '#FFFDF8',
};

/** For eyes that need more: every text at 7:1 (WCAG 2.2, 1.4.6), every control outlined at 3:1 (1.4.11). */
export const contrast: Tokens = {
  ground: '#000000',
  slate: '#0B0F13',
  deep: '#000000',
  cap: '#D3DEE8',
  breast: '#FF9F6E',
  warm: '#5A2E17',
  onBreast: '#000000',
  wing: '#FFFFFF',
  moss: '#BFE58A',
  straw: '#FFD75E',
  onStraw: '#000000',
  berry: '#FFA3B0',
  berryFill: '#9C1A30',
  onBerry: '#FFFFFF',
  rule: '#8FA3B5',
  edge: '#8FA3B5',
};

export { FEATHERS } from '@/core/document/feathers';

/** Text on a feather tone: dark enough to be read on every one. */
export const INK = '#14191F';

/** Smallest touch target, px. */
export const TOUCH = 44;
export const RADIUS = 12;
export const GAP = 8;

/** Typefaces by the names under which `fonts.ts` loads them. */
export const WORDS = 'BarlowCondensed_500Medium';
export const WORDS_STRONG = 'BarlowCondensed_600SemiBold';
export const NUMBERS = 'MartianMono_600SemiBold';
