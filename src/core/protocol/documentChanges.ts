import type { BeatSet } from '../document/set';
import type { Kit } from '../document/kit';
import type { Track } from '../document/track';
import { chainPlan, sectionPlans } from '../launch/plans';
import { gridTicks } from '../quantize/grid';
import type { Instruction } from './commands';
import { channelChanges, mixChanges, wayChanges } from './mixInstructions';
import { heardPadsInstruction, metronomeInstruction, notesInstruction, trackInstructions } from './fromDocument';

/** What an engine must be told of a set beside its tracks, since it was told another one; null: it knows nothing. */
export function setChanges(before: BeatSet | null, set: BeatSet): Instruction[] {
  const out: Instruction[] = [];
  if (before?.tempo !== set.tempo) out.push({ type: 'tempo', bpm: set.tempo });
  if (before?.meter !== set.meter) out.push({ type: 'meter', beats: set.meter.beats, unit: set.meter.unit });
  if (before?.metronome !== set.metronome) out.push(metronomeInstruction(set.metronome));
  if (before?.inputQuantize !== set.inputQuantize) {
    const { grid, on } = set.inputQuantize;
    out.push({ type: 'inputQuantize', grid: gridTicks(grid), on });
  }
  if (before?.sections !== set.sections) out.push({ type: 'sections', sections: sectionPlans(set.sections) });
  out.push(...mixChanges(before?.mix, set.mix));
  return out;
}

/** What an engine must be told of a track beside its patterns. */
export function trackChanges(old: Track | undefined, track: Track): Instruction[] {
  const { id } = track;
  const chain: Instruction[] =
    track.chain !== old?.chain ? [{ type: 'chain', track: id, chain: chainPlan(track) }] : [];
  if (!old) return [...chain, ...trackInstructions(id, track), ...wayChanges(undefined, track)];
  const out = chain;
  out.push(...kitChanges(id, old.kit, track.kit));
  if (track.tones !== old.tones) out.push(notesInstruction(id, track.tones));
  if (track.level !== old.level) out.push({ type: 'trackLevel', track: id, level: track.level });
  out.push(...channelChanges(id, old.channel, track.channel), ...wayChanges(old, track));
  if (track.mutedPads !== old.mutedPads || track.soloPads !== old.soloPads) out.push(heardPadsInstruction(id, track));
  return out;
}

/** What an engine must be told of a kit: the sounds of a few pads, where nothing else changed. */
export function kitChanges(track: number, old: Kit, kit: Kit): Instruction[] {
  if (kit === old) return [];
  const isApart =
    kit.cutGroups !== old.cutGroups || kit.pads.some((pad, i) => pad.alsoPlays !== old.pads[i]!.alsoPlays);
  const changed = kit.pads.flatMap(({ sound }, pad) => (sound === old.pads[pad]!.sound ? [] : [{ pad, sound }]));
  if (isApart || changed.length > 4) return [{ type: 'kit', track, kit }];
  return changed.map(({ pad, sound }) => ({ type: 'padSound', track, pad, sound }));
}
