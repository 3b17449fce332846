import { KITS, type KitId } from '../document/kits';
import { TONE_VOICES } from '../document/tones';
import type { Handlers, NoteLayout } from '../protocol/commands';
import { RECIPES, type Recipe } from '../sound/recipes';
import { TONE_RECIPES } from '../sound/toneRecipes';
import type { Part } from './part';
import { MAX_TRACKS, PADS } from '../document/limits';

/** The sounds of one track: its kit's, or the notes that lie on its pads. */
export class TrackSounds {
  kit: KitId = 'polished-floor';
  recipes: readonly Recipe[] = kitRecipes('polished-floor');
  /** MIDI notes of its pads, when it plays notes. */
  notes: Float64Array | null = null;
  /** Semitones by which hands play higher. */
  private octaveSemitones = 0;

  /** Semitones that a stroke by hand has. */
  get handPitch(): number {
    return this.notes ? this.octaveSemitones : 0;
  }

  play(layout: NoteLayout | null): void {
    this.octaveSemitones = 12 * (layout?.octave ?? 0);
    this.notes = layout?.notes ?? null;
  }
}

/** Which sound lies on which pad of each track. */
export class SoundRack implements Part {
  readonly tracks: readonly TrackSounds[] = Array.from({ length: MAX_TRACKS }, () => new TrackSounds());

  /** @param parts told before a track's sounds change */
  constructor(private readonly parts: readonly Part[]) {}

  readonly commands: Handlers<'kit' | 'notes'> = {
    kit: ({ track, kit }) => {
      this.tracks[track]!.kit = kit;
      // A kit that is chosen while notes are played waits for its turn.
      if (!this.tracks[track]!.notes) this.change(track, kitRecipes(kit));
    },
    notes: ({ track, layout }) => {
      const sounds = this.tracks[track]!;
      const recipes = layout ? noteRecipes(layout) : kitRecipes(sounds.kit);
      const same = layout !== null && sounds.recipes[0] === recipes[0];
      sounds.play(layout);
      if (!same) this.change(track, recipes);
    },
  };

  trackRemoved(track: number): void {
    this.tracks[track]!.play(null);
    this.change(track, kitRecipes(this.tracks[track]!.kit));
  }

  private change(track: number, recipes: readonly Recipe[]): void {
    for (const part of this.parts) part.soundsChange?.(track);
    this.tracks[track]!.recipes = recipes;
  }
}

function kitRecipes(kit: KitId): readonly Recipe[] {
  return KITS[kit].pads.map((pad) => RECIPES[pad.sound]);
}

function noteRecipes({ voice }: NoteLayout): readonly Recipe[] {
  return new Array<Recipe>(PADS).fill(TONE_RECIPES[TONE_VOICES.indexOf(voice)]!);
}
