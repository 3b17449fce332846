import { AS_IT_IS, CHAIN, SILENT, THEN_STOP } from '@/core/launch/launchState';
import { dropTicks } from '@/core/launch/plans';
import type { Instruction } from '@/core/protocol/commands';
import { ticksPerBar, type Meter } from '@/core/time/ticks';
import type { Instrument } from './instrument';
import type { Performance } from './performance';
import { trackStage } from '@/core/document/stage';
import { selectSet, selectShown, selectStage, selectTrack } from '@/store/selectors';
import type { PadsLaunch } from '@/store/sessionSlice';
import type { RootState, Store } from '@/store/store';
import type { Section } from '@/core/document/section';
import type { Drop } from '@/core/document/launching';
import { patternMade } from '@/store/slotsSlice';
import { sectionStored } from '@/store/sectionsSlice';

export const DROP_NAMES: Record<Drop, string> = {
  now: 'Now',
  beat: 'Beat',
  bar: 'Bar',
  loop: 'Loop end',
  bars2: '2 bars',
  bars4: '4 bars',
};

/** How far a nudge bends the tempo. */
export const NUDGE = 0.02;

/** The *Drop on* that holds now: the set's own, or the override. */
export function selectDrop(state: RootState): Drop {
  const { dropOn, override } = selectSet(state).launching;
  return state.session.overriding ? override : dropOn;
}

function on(state: RootState): number {
  return dropTicks(selectDrop(state), selectSet(state).meter);
}

/** How a pattern stands: whether it plays, and the song ticks at which it comes and goes (Infinity: neither). */
export interface CardState {
  plays: boolean;
  comes: number;
  goes: number;
  /** Hands asked for the change, and can take it back. */
  byHand: boolean;
}

export function cardState({ launcher }: Performance, track: number, slot: number): CardState {
  const plays = launcher.live.slot[track] === slot;
  const change = launcher.nextChange(launcher.live, track);
  return {
    plays,
    comes: change?.slot === slot ? change.tick : Infinity,
    goes: plays && change && change.slot !== slot ? change.tick : Infinity,
    byHand: change?.by === 'hand',
  };
}

/** A pattern's card is touched: it waits, or stops waiting; one that plays waits to stop. An empty slot gets a pattern. */
export function touchCard(store: Store, instrument: Instrument, track: number, slot: number): void {
  const { plays, comes, goes, byHand } = cardState(instrument.performance, track, slot);
  const { live } = instrument.performance.launcher;
  const waitsToStop = goes < Infinity && live.next[track] === SILENT;
  if (byHand && ((comes < Infinity && !plays) || (plays && waitsToStop)))
    return instrument.perform({ type: 'cancelLaunch', track });
  const state = store.getState();
  const set = selectSet(state);
  if (!set.tracks[track]?.patterns[slot]) store.dispatch(patternMade({ track, slot }));
  instrument.perform({
    type: 'launch',
    track,
    slot: plays ? SILENT : slot,
    on: on(state),
    inPlace: set.launching.inPlace,
  });
}

/** A section is touched: it waits, or stops waiting. */
export function touchSection(store: Store, instrument: Instrument, id: number): void {
  const state = store.getState();
  const { launching } = selectSet(state);
  const { nextSection } = instrument.performance.launcher.live;
  if (nextSection === id) instrument.perform({ type: 'cancelSection' });
  else instrument.perform({ type: 'launchSection', section: id, on: on(state), inPlace: launching.inPlace });
}

/** A track's chain is touched: it waits to begin; while it goes on, it ends where it is. */
export function touchChain(store: Store, instrument: Instrument, track: number): void {
  const state = store.getState();
  const { live } = instrument.performance.launcher;
  const { slot } = trackStage(selectStage(state), track);
  if (live.link[track]! >= 0) instrument.perform({ type: 'launch', track, slot, on: 0, inPlace: true });
  else if (live.nextTick[track]! < Infinity && live.next[track] === CHAIN)
    instrument.perform({ type: 'cancelLaunch', track });
  else instrument.perform({ type: 'launch', track, slot: CHAIN, on: on(state), inPlace: false });
}

/**
 * A mute or solo is touched, of one track or of all of a group: it waits for *Drop on* like everything else; touched again, it does not. Of tracks
 * of which only some are muted or soloed, all will be.
 */
export function touchMuteSolo(
  store: Store,
  instrument: Instrument,
  tracks: readonly number[],
  which: 'mute' | 'solo',
): void {
  const { live } = instrument.performance.launcher;
  const [is, waits] = which === 'mute' ? [live.muted, live.nextMute] : [live.soloed, live.nextSolo];
  const waiting = tracks.filter((track) => waits[track] !== AS_IT_IS);
  if (waiting.length > 0) {
    return instrument.perform(...waiting.map((track): Instruction => ({ type: 'cancelMuteSolo', track })));
  }
  const wanted = tracks.every((track) => is[track] === 1) ? 0 : 1;
  const mute = which === 'mute' ? wanted : AS_IT_IS;
  const solo = which === 'solo' ? wanted : AS_IT_IS;
  const line = on(store.getState());
  instrument.perform(...tracks.map((track): Instruction => ({ type: 'muteSolo', track, mute, solo, on: line })));
}

/** Everything stops on *Drop on*; asked again before that, at once. */
export function stopAll(store: Store, instrument: Instrument): void {
  const waits = instrument.performance.launcher.live.nextSection === THEN_STOP;
  const follows = instrument.performance.launcher.live.sectionFollows;
  instrument.perform({ type: 'stopAll', on: waits && !follows ? 0 : on(store.getState()) });
}

export function lift(store: Store, instrument: Instrument, held: boolean): void {
  instrument.perform({ type: 'lift', held, on: on(store.getState()) });
}

/** Everything fades out over some bars; asked again, it does not. */
export function touchFade(store: Store, instrument: Instrument, bars: number, meter: Meter): void {
  const fading = instrument.performance.launcher.fadeTo < Infinity;
  instrument.perform({ type: 'fade', ticks: fading ? 0 : bars * ticksPerBar(meter), on: on(store.getState()) });
}

/** What plays now as a section: every track by name, so that launching it brings back just this. */
export function playing(store: Store, { performance }: Instrument): Section['parts'] {
  const { live } = performance.launcher;
  return selectSet(store.getState()).order.map((track) => {
    const slot = live.slot[track]!;
    return { track, plays: live.link[track]! >= 0 ? 'chain' : slot === SILENT ? null : slot };
  });
}

/** Stores what plays now as a new section. Returns its name. */
export function storeSection(store: Store, instrument: Instrument): string {
  const { sections } = selectSet(store.getState());
  const id = Math.max(0, ...sections.map((section) => section.id)) + 1;
  let number = sections.length + 1;
  while (sections.some((section) => section.name === `Section ${number}`)) number++;
  const name = `Section ${number}`;
  store.dispatch(sectionStored({ id, name, colour: (id - 1) % 8, parts: playing(store, instrument), rounds: 4 }));
  return name;
}

/** How a section stands. */
export function sectionState({ launcher }: Performance, id: number): { plays: boolean; comes: number } {
  const { live } = launcher;
  const waits = live.nextSection === id;
  return { plays: live.section === id, comes: waits ? live.sectionTick : Infinity };
}

/** A pad that launches is pressed: a pattern of the shown track, or a section, by its number. */
export function pressLaunchPad(store: Store, instrument: Instrument, what: PadsLaunch, pad: number): void {
  const set = selectSet(store.getState());
  if (what === 'patterns') {
    // An empty slot stays empty: in the dark a pad is hit by mistake.
    if (selectTrack(store.getState()).patterns[pad]) touchCard(store, instrument, selectShown(store.getState()), pad);
    return;
  }
  const section = set.sections[pad];
  if (section) touchSection(store, instrument, section.id);
}
