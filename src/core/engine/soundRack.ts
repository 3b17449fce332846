import { reachedBy, type Kit } from '../document/kit';
import { POLISHED_FLOOR } from '../document/kits';
import { MAX_TRACKS, PADS } from '../document/limits';
import type { Arpeggio } from '../document/tones';
import { presetOf, type TonePreset } from '../document/toneVoices';
import type { Handlers, NoteLayout } from '../protocol/commands';
import { gridTicks } from '../quantize/grid';
import { patchOf, tonePatch, type Patch } from '../sound/patch';
import type { Part } from './part';

/** Another pad that sounds by a stroke of a pad. */
export interface AlsoStroke {
  pad: number;
  /** Share of the stroke's velocity. */
  share: number;
  /** How much later: ms and ticks together. */
  ms: number;
  ticks: number;
}

/** What a pad of a track plays. */
export interface PadVoice {
  patch: Patch;
  /** Pads of one group cut each other off; 0 is none. */
  cutGroup: number;
  also: readonly AlsoStroke[];
}

/** The sounds of one track: its kit's, or the notes that lie on its pads. */
export class TrackSounds {
  /** Of its kit: heard as long as it plays no notes. */
  private kit: PadVoice[] = kitVoices(POLISHED_FLOOR);
  private played: readonly PadVoice[] | null = null;
  /** MIDI notes of its pads, when it plays notes. */
  notes: Float64Array | null = null;
  preset: TonePreset | null = null;
  /** What note repeat makes of held notes. */
  arpeggio: Arpeggio | null = null;
  /** Semitones by which hands play higher. */
  private octaveSemitones = 0;

  get pads(): readonly PadVoice[] {
    return this.played ?? this.kit;
  }

  /** Semitones that a stroke by hand has. */
  get handPitch(): number {
    return this.notes ? this.octaveSemitones : 0;
  }

  setKit(kit: Kit): void {
    this.kit = kitVoices(kit);
  }

  setPatch(pad: number, patch: Patch): void {
    this.kit[pad] = { ...this.kit[pad]!, patch };
  }

  play(layout: NoteLayout | null): void {
    this.octaveSemitones = 12 * (layout?.octave ?? 0);
    this.notes = layout?.notes ?? null;
    this.arpeggio = layout?.arpeggio ?? null;
    this.preset = layout && presetOf(layout);
    this.played = layout && noteVoices(layout);
  }
}

/** Which sound lies on which pad of each track. */
export class SoundRack implements Part {
  readonly tracks: readonly TrackSounds[] = Array.from({ length: MAX_TRACKS }, () => new TrackSounds());

  /** @param parts told before a track plays notes in the place of its kit, by another preset, or its kit again */
  constructor(private readonly parts: readonly Part[]) {}

  readonly commands: Handlers<'kit' | 'padSound' | 'notes'> = {
    // What rings goes on as it began: only strokes to come sound different.
    kit: ({ track, kit }) => this.tracks[track]!.setKit(kit),
    padSound: ({ track, pad, sound }) => this.tracks[track]!.setPatch(pad, patchOf(sound)),
    notes: ({ track, layout }) => this.play(track, layout),
  };

  trackRemoved(track: number): void {
    this.tracks[track]!.setKit(POLISHED_FLOOR);
    this.play(track, null);
  }

  private play(track: number, layout: NoteLayout | null): void {
    const sounds = this.tracks[track]!;
    if ((layout && presetOf(layout)) !== sounds.preset) for (const part of this.parts) part.soundsChange?.(track);
    sounds.play(layout);
  }
}

function kitVoices({ pads, cutGroups }: Kit): PadVoice[] {
  return pads.map(({ sound }, pad) => ({
    patch: patchOf(sound),
    cutGroup: cutGroups.findIndex((group) => group.includes(pad)) + 1,
    also: (reachedBy(pads, pad) ?? []).map(({ notes, ...also }) => ({
      ...also,
      ticks: notes.reduce((ticks, note) => ticks + gridTicks(note), 0),
    })),
  }));
}

function noteVoices(layout: NoteLayout): PadVoice[] {
  const patch = tonePatch(layout, layout.settings);
  return new Array<PadVoice>(PADS).fill({ patch, cutGroup: patch.isMono ? 1 : 0, also: [] });
}
