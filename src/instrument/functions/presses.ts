import type { Drop } from '@/core/document/launching';
import { LOOP_BARS } from '@/core/document/limits';
import { loopBars, type LoopWindow } from '@/core/document/pattern';
import type { FunctionName, Target } from '@/core/midi/target';
import { gridTicks } from '@/core/quantize/grid';
import { fitWindow, windowOf } from '@/core/sequence/loopWindow';
import { ticksPerBar } from '@/core/time/ticks';
import { edited, loopBarsSet } from '@/store/patternsSlice';
import { launchingSet } from '@/store/sectionsSlice';
import { selectPattern, selectSet, selectShown, selectTrack } from '@/store/selectors';
import { latchToggled, overrideSet, padsLaunchSet, repeatToggled } from '@/store/sessionSlice';
import { fixedVelocityToggled } from '@/store/settingsSlice';
import { trackShown } from '@/store/stageSlice';
import { laneChosen } from '@/store/stepsSlice';
import type { RootState } from '@/store/store';
import { inputQuantizeToggled, metronomeToggled, tempoSet } from '@/store/timeSlice';
import { octaveSet, padMuteToggled, padSoloToggled } from '@/store/tracksSlice';
import { redone, undone } from '@/store/undoable';
import { keep, keepWindow, lookBack } from '../keepPattern';
import { lift, NUDGE, stopAll, touchCard, touchChain, touchMuteSolo, touchSection } from '../launches';
import { padOf, trackOf, type Desk } from './desk';

/** What is done by a press, at its time stamp (ms). */
export type PressFunction = (target: Target, desk: Desk, timeStamp: number) => void;

/** A switch: whether it is on, and what turns it over. */
export interface SwitchFunction {
  isOn: (state: RootState, target: Target, desk: Desk) => boolean;
  toggle: PressFunction;
}

/** What holds for as long as it is held. */
export type HoldFunction = (down: boolean, target: Target, desk: Desk) => void;

const withTrack = (act: (track: number, desk: Desk, target: Target) => void): PressFunction => (target, desk) => {
  const track = trackOf(desk.store.getState(), target);
  if (track !== null) act(track, desk, target);
}; // prettier-ignore

/** The loop's length in bars, times so much, as far as there are such lengths. */
const scaleLoop = (factor: number): PressFunction => (_, { store, instrument }) => {
  const state = store.getState();
  const bars = loopBars(selectPattern(state), selectSet(state).meter) * factor;
  if (bars >= LOOP_BARS[0] && bars <= LOOP_BARS[LOOP_BARS.length - 1]!) {
    store.dispatch(loopBarsSet({ place: instrument.placeOf(), bars }));
  }
}; // prettier-ignore

/** The stretch that goes round is another one. */
const changeWindow = (change: (now: LoopWindow, bar: number) => LoopWindow | null): PressFunction => (_, desk) => {
  const state = desk.store.getState();
  const pattern = selectPattern(state);
  const next = change(windowOf(pattern), ticksPerBar(selectSet(state).meter));
  const window = next && fitWindow(next.start, next.length, pattern.length);
  desk.store.dispatch(edited({ place: desk.instrument.placeOf(), edit: { kind: 'window', window } }));
}; // prettier-ignore

const walk = (by: number): PressFunction => (_, { store }) => {
  const state = store.getState();
  const { order } = selectSet(state);
  const next = order[order.indexOf(selectShown(state)) + by];
  if (next !== undefined) store.dispatch(trackShown(next));
}; // prettier-ignore

const shiftOctave = (by: number): PressFunction => (_, { store }) => {
  const { id, tones } = selectTrack(store.getState());
  if (tones) store.dispatch(octaveSet({ track: id, octave: tones.octave + by }));
}; // prettier-ignore

const changeTempo = (by: number): PressFunction => (_, { store }) =>
  void store.dispatch(tempoSet(selectSet(store.getState()).tempo + by)); // prettier-ignore

/** What was just played becomes a pattern, as the sheet Keep has it to begin with. */
const keepBars: PressFunction = ({ bars }, { store, instrument }, timeStamp) => {
  const state = store.getState();
  const { meter, inputQuantize } = selectSet(state);
  const keepable = lookBack(instrument, state);
  const now = instrument.performance.anchor.playing ? instrument.performance.tickHeard(timeStamp) : null;
  const asked = { bars: bars!, shift: 0, meter, grid: gridTicks(inputQuantize.grid), now };
  keep(store, instrument, keepWindow(keepable, keepable.beat, asked), keepable.beat);
};

export const PRESS_FUNCTIONS = {
  choosePad: ({ pad }, { store }) => void store.dispatch(laneChosen({ pad: pad! })),
  octaveUp: shiftOctave(1),
  octaveDown: shiftOctave(-1),
  letGo: (_, { instrument }) => instrument.rides.letGoOfAll(),
  showTrack: withTrack((track, { store }) => void store.dispatch(trackShown(track))),
  trackBefore: walk(-1),
  trackAfter: walk(1),
  card: withTrack((track, { store, instrument }, { slot }) => {
    // An empty slot stays empty: in the dark a pad is hit by mistake.
    if (selectSet(store.getState()).tracks[track]!.patterns[slot!]) touchCard(store, instrument, track, slot!);
  }),
  section: ({ section }, { store, instrument }) => {
    const found = selectSet(store.getState()).sections[section!];
    if (found) touchSection(store, instrument, found.id);
  },
  chain: withTrack((track, { store, instrument }) => {
    if (selectSet(store.getState()).tracks[track]!.chain) touchChain(store, instrument, track);
  }),
  dropOn: ({ drop }, { store }) => void store.dispatch(launchingSet({ dropOn: drop as Drop })),
  stopAll: (_, { store, instrument }) => stopAll(store, instrument),
  top: (_, { instrument }) => {
    if (!instrument.performance.anchor.playing) instrument.stop();
  },
  tempoUp: changeTempo(1),
  tempoDown: changeTempo(-1),
  tap: (_, { instrument }, timeStamp) => instrument.tapTempo(timeStamp),
  halveLoop: scaleLoop(0.5),
  doubleLoop: scaleLoop(2),
  windowBack: changeWindow(({ start, length }) => ({ start: start - length, length })),
  windowOn: changeWindow(({ start, length }) => ({ start: start + length, length })),
  windowHalf: changeWindow(({ start, length }) => ({ start, length: length / 2 })),
  windowWhole: changeWindow(() => null),
  keep: keepBars,
  undo: (_, { store }) => void store.dispatch(undone()),
  redo: (_, { store }) => void store.dispatch(redone()),
  place: ({ place }, { openPlace }) => openPlace(place!),
  panic: (_, { instrument }) => instrument.panic(),
} satisfies Partial<Record<FunctionName, PressFunction>>;

export const SWITCH_FUNCTIONS = {
  repeat: { isOn: ({ session }) => session.repeat.on, toggle: (_, { store }) => void store.dispatch(repeatToggled()) },
  latch: { isOn: ({ session }) => session.repeat.latch, toggle: (_, { store }) => void store.dispatch(latchToggled()) },
  padMute: {
    isOn: (state, target) => isPadIn(state, target, 'mutedPads'),
    toggle: withTrack((track, { store }, target) => {
      store.dispatch(padMuteToggled({ track, pad: padOf(store.getState(), target) }));
    }),
  },
  padSolo: {
    isOn: (state, target) => isPadIn(state, target, 'soloPads'),
    toggle: withTrack((track, { store }, target) => {
      store.dispatch(padSoloToggled({ track, pad: padOf(store.getState(), target) }));
    }),
  },
  fixedVelocity: {
    isOn: ({ settings }) => settings.fixedVelocity.on,
    toggle: (_, { store }) => void store.dispatch(fixedVelocityToggled()),
  },
  padsLaunchPatterns: padsLaunch('patterns'),
  padsLaunchSections: padsLaunch('sections'),
  mute: {
    isOn: (state, target, desk) => isMuteSolo(state, target, desk, 'mute'),
    toggle: withTrack((track, { store, instrument }) => touchMuteSolo(store, instrument, [track], 'mute')),
  },
  solo: {
    isOn: (state, target, desk) => isMuteSolo(state, target, desk, 'solo'),
    toggle: withTrack((track, { store, instrument }) => touchMuteSolo(store, instrument, [track], 'solo')),
  },
  play: { isOn: ({ session }) => session.playing, toggle: (_, { instrument }) => instrument.playOrStop() },
  record: { isOn: ({ session }) => session.recording, toggle: (_, { instrument }) => instrument.toggleRecord() },
  metronome: {
    isOn: (state) => selectSet(state).metronome.on,
    toggle: (_, { store }) => void store.dispatch(metronomeToggled()),
  },
  quantize: {
    isOn: (state) => selectSet(state).inputQuantize.on,
    toggle: (_, { store }) => void store.dispatch(inputQuantizeToggled()),
  },
} satisfies Partial<Record<FunctionName, SwitchFunction>>;

export const HOLD_FUNCTIONS = {
  lift: (down, _, { store, instrument }) => lift(store, instrument, down),
  sustain: (down, _, { instrument }) => instrument.hands.sustain(down, performance.now()),
  override: (down, _, { store }) => void store.dispatch(overrideSet(down)),
  nudgeFaster: (down, _, { instrument }) => instrument.perform({ type: 'tempoBend', ratio: down ? 1 + NUDGE : 1 }),
  nudgeSlower: (down, _, { instrument }) => instrument.perform({ type: 'tempoBend', ratio: down ? 1 - NUDGE : 1 }),
} satisfies Partial<Record<FunctionName, HoldFunction>>;

function padsLaunch(what: 'patterns' | 'sections'): SwitchFunction {
  return {
    isOn: ({ session }) => session.padsLaunch === what,
    toggle: (_, { store }) =>
      void store.dispatch(padsLaunchSet(store.getState().session.padsLaunch === what ? null : what)),
  };
}

function isPadIn(state: RootState, target: Target, which: 'mutedPads' | 'soloPads'): boolean {
  const track = selectSet(state).tracks[trackOf(state, target) ?? -1];
  return track?.[which]?.includes(padOf(state, target)) === true;
}

function isMuteSolo(state: RootState, target: Target, { instrument }: Desk, which: 'mute' | 'solo'): boolean {
  const { live } = instrument.performance.launcher;
  return (which === 'mute' ? live.muted : live.soloed)[trackOf(state, target) ?? -1] === 1;
}
