import { AS_IT_IS, CHAIN } from '@/core/launch/launchState';
import { LIFT } from '@/core/launch/launcher';
import { DARK, RED_TONE, WHITE_TONE, type Light, type LightLevel } from '@/core/midi/lights';
import { FUNCTIONS, type Target } from '@/core/midi/target';
import { mod, ticksPerBeat } from '@/core/time/ticks';
import { selectSet } from '@/store/selectors';
import type { RootState } from '@/store/store';
import { trackOf } from '../functions/desk';
import type { Instrument } from '../instrument';
import { cardState, sectionState } from '../launches';

/** A pad stays bright for so long after it has sounded, ms. */
const GLOW_MS = 120;

/** What lights are computed from, at one moment. */
export interface LightMoment {
  state: RootState;
  instrument: Instrument;
  /** The stretch of the engine's output in which a pad that sounded is bright: frames that are heard now, or were just now. */
  glowFrom: number;
  glowTo: number;
  /** What waits is lit in the first half of each beat. */
  blink: boolean;
}

/** @param now ms */
export function lightMoment(instrument: Instrument, state: RootState, now: number): LightMoment {
  const { anchor, frameHeardAt } = instrument.performance;
  const beat = ticksPerBeat(selectSet(state).meter);
  const blink = !anchor.playing || mod(instrument.performance.tickHeard(now), beat) < beat / 2;
  return { state, instrument, glowFrom: frameHeardAt(now - GLOW_MS), glowTo: frameHeardAt(now), blink };
}

/** What the light of a function shows: whether there is something, whether it sounds, whether it waits. */
export function lightOf(target: Target, moment: LightMoment): Light {
  const { state, instrument } = moment;
  switch (target.do) {
    case 'pad':
      return padLight(target, moment);
    case 'card':
      return cardLight(target, moment);
    case 'section':
      return sectionLight(target.section!, moment);
    case 'chain':
      return chainLight(target, moment);
    case 'mute':
    case 'solo':
      return gateLight(target, target.do, moment);
    case 'lift':
      return { tone: WHITE_TONE, level: instrument.performance.launcher.lift === LIFT.HELD ? 2 : 1 };
    case 'record':
      return { tone: RED_TONE, level: state.session.recording ? 2 : 1 };
    default: {
      const on = FUNCTIONS[target.do].kind === 'switch' && instrument.functions.isOn(target);
      return { tone: WHITE_TONE, level: on ? 2 : 1 };
    }
  }
}

function padLight(target: Target, moment: LightMoment): Light {
  const { state } = moment;
  const { padsLaunch } = state.session;
  if (padsLaunch && target.row === undefined) {
    if (padsLaunch === 'sections') return sectionLight(target.pad!, moment);
    const row = selectSet(state).order.indexOf(state.stage.shown);
    return cardLight({ do: 'card', row, slot: target.pad! }, moment);
  }
  const id = trackOf(state, target);
  const track = selectSet(state).tracks[id ?? -1];
  if (!track) return DARK;
  const isMuted = track.mutedPads?.includes(target.pad!) === true;
  if (sounds(track.id, target.pad!, moment)) {
    return { tone: state.session.recording ? RED_TONE : track.colour, level: 2 };
  }
  return isMuted ? DARK : { tone: track.colour, level: 1 };
}

/** Whether a pad is heard at this moment, or was just now. */
function sounds(track: number, pad: number, { instrument, glowFrom, glowTo }: LightMoment): boolean {
  const { sounded } = instrument.performance;
  for (let i = sounded.length - 1; i >= 0; i--) {
    const one = sounded[i]!;
    if (one.heardFrame < glowFrom) return false;
    if (one.track === track && one.pad === pad && one.heardFrame <= glowTo) return true;
  }
  return false;
}

function cardLight(target: Target, { state, instrument, blink }: LightMoment): Light {
  const id = trackOf(state, target);
  const track = selectSet(state).tracks[id ?? -1];
  const pattern = track?.patterns[target.slot!];
  if (!track || !pattern) return DARK;
  const { plays, comes, goes } = cardState(instrument.performance, track.id, target.slot!);
  const tone = pattern.colour ?? track.colour;
  return { tone, level: levelOf({ plays, waits: comes < Infinity, stops: plays && goes < Infinity, blink }) };
}

function sectionLight(place: number, { state, instrument, blink }: LightMoment): Light {
  const section = selectSet(state).sections[place];
  if (!section) return DARK;
  const { plays, comes } = sectionState(instrument.performance, section.id);
  return { tone: section.colour, level: levelOf({ plays, waits: comes < Infinity, stops: false, blink }) };
}

function chainLight(target: Target, { state, instrument, blink }: LightMoment): Light {
  const track = selectSet(state).tracks[trackOf(state, target) ?? -1];
  if (!track?.chain) return DARK;
  const { live } = instrument.performance.launcher;
  const waits = live.nextTick[track.id]! < Infinity && live.next[track.id] === CHAIN;
  return { tone: track.colour, level: levelOf({ plays: live.link[track.id]! >= 0, waits, stops: false, blink }) };
}

function gateLight(target: Target, which: 'mute' | 'solo', { state, instrument, blink }: LightMoment): Light {
  const id = trackOf(state, target);
  if (id === null) return DARK;
  const { live } = instrument.performance.launcher;
  const [is, next] = which === 'mute' ? [live.muted, live.nextMute] : [live.soloed, live.nextSolo];
  const level = levelOf({ plays: is[id] === 1, waits: next[id] !== AS_IT_IS, stops: false, blink });
  return { tone: WHITE_TONE, level };
}

/** Bright while it sounds, dim while it only is there; what waits blinks between bright and dark, what is to stop between bright and dim. */
function levelOf(is: { plays: boolean; waits: boolean; stops: boolean; blink: boolean }): LightLevel {
  if (is.waits && !is.plays) return is.blink ? 2 : 0;
  if (is.stops) return is.blink ? 2 : 1;
  return is.plays ? 2 : 1;
}
