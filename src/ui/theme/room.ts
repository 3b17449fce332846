import { useSyncExternalStore } from 'react';

/**
 * How the screen is laid out:
 * - `upright`: one column, the places along the bottom. Phones, and tablets held upright.
 * - `lying`: too low for a head of rows. Phones lying down, and a desk's window at 200 % zoom.
 * - `wide`: room for two panes beside each other. Tablets lying down, desks.
 */
export type Layout = 'upright' | 'lying' | 'wide';

/** The room for the app, px: the page without what the device covers of it. */
export interface Room {
  layout: Layout;
  width: number;
  height: number;
  /** How much larger type, and what is as large as its type, is than on a phone: as it is on phones and tablets, larger on a desk. */
  type: number;
}

/** Lower than this, and wider than high, a screen lies. */
const LOW = 520;
/** From this width on there is room for two panes. */
const WIDE = 900;

/** From these sizes on a desk is looked at from further away. */
const DESKS = [
  { width: 2200, height: 1200, type: 1.4 },
  { width: 1600, height: 900, type: 1.18 },
] as const;

/** Width of the places where they stand in a rail at the side. */
export const RAIL_WIDTH = 72;
/** A lying screen narrower than this has no width for a rail: the places stand in its head. */
const RAIL_FROM = 740;

/** Where the places stand: along the bottom, in a rail at the side, or in the head. */
export function placesIn({ layout, width }: Room): 'bottom' | 'rail' | 'head' {
  if (layout === 'upright') return 'bottom';
  return layout === 'lying' && width < RAIL_FROM ? 'head' : 'rail';
}

/** Where what is said for a moment stands: on the Flyway, where nothing is touched; or in the place, where the Flyway is too narrow. */
export function noticesIn(room: Room): 'flyway' | 'place' {
  return room.layout === 'lying' && placesIn(room) === 'head' ? 'place' : 'flyway';
}

/** @example roomOf(844, 390).layout // 'lying' */
export function roomOf(width: number, height: number): Room {
  const layout = height < LOW && width > height ? 'lying' : width >= WIDE ? 'wide' : 'upright';
  const desk = DESKS.find((least) => width >= least.width && height >= least.height);
  return { layout, width, height, type: desk?.type ?? 1 };
}

/**
 * The room there is now. An on-screen keyboard and pinch zoom do not count: they move what is seen of the page, and a layout
 * that changed with them would take the control away that is being used.
 */
export function useRoom(): Room {
  return useSyncExternalStore(subscribe, roomNow, roomNow);
}

const listeners = new Set<() => void>();

function resized(): void {
  measure();
  listeners.forEach((tell) => tell());
}

/** The first one measures, since the room may have changed since it was rendered; then only a resize does. */
function subscribe(tell: () => void): () => void {
  if (listeners.size === 0) {
    measure();
    window.addEventListener('resize', resized);
  }
  listeners.add(tell);
  return () => {
    listeners.delete(tell);
    if (listeners.size === 0) window.removeEventListener('resize', resized);
  };
}

let room: Room | null = null;

/** Asked for at every render: only a resize measures, since that makes the browser lay the page out. */
function roomNow(): Room {
  return room ?? measure();
}

function measure(): Room {
  const { width, height } = sizeNow();
  if (width === room?.width && height === room.height) return room;
  room = roomOf(width, height);
  // By which `grown` of type.ts grows.
  document.documentElement.style.setProperty('--type', String(room.type));
  return room;
}

/** The root's padding is what the device's corners and notches take (see `public/index.html`). */
function sizeNow(): { width: number; height: number } {
  const root = document.getElementById('root');
  if (!root) return { width: window.innerWidth, height: window.innerHeight };
  const { paddingLeft, paddingRight, paddingTop, paddingBottom } = getComputedStyle(root);
  return {
    width: root.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight),
    height: root.clientHeight - parseFloat(paddingTop) - parseFloat(paddingBottom),
  };
}
