import { alike } from '../alike';
import { counted } from '../counted';
import type { Hit } from '../document/hit';
import type { Pattern } from '../document/pattern';
import type { BeatSet } from '../document/set';
import { presetName, presetOf } from '../document/toneVoices';
import type { Track } from '../document/track';
import { formatTempo } from '../time/tempo';

export type ChangeKind = 'added' | 'removed' | 'changed';

/** What has become of one pattern. */
export interface PatternChange {
  slot: number;
  /** Of the later one; of the earlier one, if it is gone. */
  name: string;
  kind: ChangeKind;
  before: Pattern | null;
  after: Pattern | null;
  /** What is different, each in a few words; of one that was added or removed, how many hits it has. */
  words: string[];
}

/** What has become of one track. */
export interface TrackChange {
  id: number;
  name: string;
  kind: ChangeKind;
  words: string[];
  /** From the first slot to the last. */
  patterns: PatternChange[];
}

/** What is different in a later set, compared with an earlier one. */
export interface SetChanges {
  words: string[];
  /** In the order of the later set, and those that are gone. */
  tracks: TrackChange[];
}

/** Compares two versions of a set: what was added, removed and changed from the earlier to the later one. */
export function compareSets(before: BeatSet, after: BeatSet): SetChanges {
  const tracks: TrackChange[] = [];
  for (const id of new Set([...after.order, ...before.order])) {
    const change = compareTracks(before.tracks[id], after.tracks[id]);
    if (change) tracks.push(change);
  }
  return { words: setWords(before, after), tracks };
}

/** Whether nothing is different. */
export function isNoChange({ words, tracks }: SetChanges): boolean {
  return words.length === 0 && tracks.length === 0;
}

function setWords(before: BeatSet, after: BeatSet): string[] {
  const words: string[] = [];
  if (before.name !== after.name) words.push(`name “${before.name}” to “${after.name}”`);
  if (before.tempo !== after.tempo) words.push(`tempo ${formatTempo(before.tempo)} to ${formatTempo(after.tempo)}`);
  const meter = (set: BeatSet) => `${set.meter.beats}/${set.meter.unit}`;
  if (meter(before) !== meter(after)) words.push(`meter ${meter(before)} to ${meter(after)}`);
  if (!alike(before.metronome, after.metronome) || before.countIn !== after.countIn) words.push('click and count-in');
  if (!alike(before.inputQuantize, after.inputQuantize)) words.push('input quantize');
  if (!alike(before.launching, after.launching)) words.push('how patterns are launched');
  if (!alike(before.sections, after.sections)) words.push(sectionWords(before, after));
  if (!alike(before.mix, after.mix)) words.push('groups, echo, room or the whole mix');
  const both = (set: BeatSet, other: BeatSet) => set.order.filter((id) => other.tracks[id]);
  if (!alike(both(before, after), both(after, before))) words.push('order of the tracks');
  return words;
}

function sectionWords({ sections: old }: BeatSet, { sections: now }: BeatSet): string {
  return old.length === now.length ? 'sections' : `${counted(old.length, 'section')} to ${now.length}`;
}

function compareTracks(before: Track | undefined, after: Track | undefined): TrackChange | null {
  const { id, name } = (after ?? before)!;
  const slots = Math.max(before?.patterns.length ?? 0, after?.patterns.length ?? 0);
  const patterns: PatternChange[] = [];
  for (let slot = 0; slot < slots; slot++) {
    const change = comparePatterns(slot, before?.patterns[slot] ?? null, after?.patterns[slot] ?? null);
    if (change) patterns.push(change);
  }
  if (!before) return { id, name, kind: 'added', words: [], patterns };
  if (!after) return { id, name, kind: 'removed', words: [], patterns };
  const words = trackWords(before, after);
  return words.length === 0 && patterns.length === 0 ? null : { id, name, kind: 'changed', words, patterns };
}

function trackWords(before: Track, after: Track): string[] {
  const words: string[] = [];
  if (before.name !== after.name) words.push(`name “${before.name}” to “${after.name}”`);
  const sound = ({ kit, tones }: Track) => (tones ? presetName(presetOf(tones)) : kit.name);
  if (sound(before) !== sound(after)) words.push(`${sound(before)} to ${sound(after)}`);
  else if (!alike(before.tones, after.tones)) words.push('key and layout of notes');
  if (!alike(before.kit, after.kit)) words.push('sounds');
  if (before.level !== after.level) words.push(`level ${percent(before.level)} to ${percent(after.level)}`);
  if (before.colour !== after.colour) words.push('colour');
  const pads = ({ mutedPads = [], soloPads = [] }: Track) => [mutedPads, soloPads];
  if (!alike(pads(before), pads(after))) words.push('muted sounds');
  const channel = ({ channel: settings = {}, goesTo, padsTo = [] }: Track) => [settings, goesTo, padsTo];
  if (!alike(channel(before), channel(after))) words.push('channel of the mix');
  if (!alike(before.chain, after.chain)) words.push('chain');
  return words;
}

function comparePatterns(slot: number, before: Pattern | null, after: Pattern | null): PatternChange | null {
  if (before === after || alike(before, after)) return null;
  const { name, hits } = (after ?? before)!;
  if (!before || !after) {
    const words = hits.length > 0 ? [counted(hits.length, 'hit')] : [];
    return { slot, name, kind: before ? 'removed' : 'added', before, after, words };
  }
  return { slot, name, kind: 'changed', before, after, words: patternWords(before, after) };
}

function patternWords(before: Pattern, after: Pattern): string[] {
  const words: string[] = [];
  if (before.name !== after.name) words.push(`name “${before.name}” to “${after.name}”`);
  if (before.length !== after.length || !alike(before.window, after.window)) words.push('length of the loop');
  words.push(...hitWords(before.hits, after.hits));
  const treatment = ({ feel, loudness, lanes }: Pattern) => [feel, loudness, lanes];
  if (!alike(treatment(before), treatment(after))) words.push('Feel and loudness');
  if (!alike(before.moves, after.moves)) words.push('Moves');
  if (before.colour !== after.colour) words.push('colour');
  return words;
}

function hitWords(before: readonly Hit[], after: readonly Hit[]): string[] {
  const old = new Map(before.map((hit) => [hit.id, hit]));
  let [added, changed] = [0, 0];
  for (const hit of after) {
    const was = old.get(hit.id);
    if (!was) added++;
    else if (!alike(was, hit)) changed++;
    old.delete(hit.id);
  }
  const words: string[] = [];
  if (added > 0) words.push(`${counted(added, 'hit')} more`);
  if (old.size > 0) words.push(`${counted(old.size, 'hit')} fewer`);
  if (changed > 0) words.push(`${counted(changed, 'hit')} changed`);
  return words;
}

function percent(level: number): string {
  return `${Math.round(level * 100)} %`;
}
