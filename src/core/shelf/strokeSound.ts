import { SOUND_NUMBERS, type Sound, type SoundSettings } from '../document/sound';
import { SAMPLE_RATE, type SampleAudio } from '../sample/levels';
import { DrumVoice } from '../sound/drumVoice';
import { PLAIN } from '../sound/shape';
import { patchOf, recipeOf, type Patch } from '../sound/patch';
import { MAX_STRETCH } from '../sound/stretch';
import { VoiceBus } from '../sound/voiceBus';
import { anchorLike } from '../time/timeline';

/** Longest that a sound becomes as a sample, seconds, and the share of its loudest below which it is over: 80 dB. */
const LONGEST_SECONDS = 10;
const OVER = 1e-4;

const bus = new VoiceBus();

/** How a sound is struck. */
interface Struck {
  /** Frames per second. */
  rate: number;
  /** How much of it is rendered. */
  seconds: number;
  /** MIDI note, for what plays notes, and seconds after which it is let go. */
  note?: number;
  held?: number;
  /** 0..1 */
  velocity?: number;
  /** At which it is struck: what differs from stroke to stroke follows from it. */
  frame?: number;
}

/** One stroke as it goes to the mix, without the room. */
export function renderStroke(
  patch: Patch,
  { rate, seconds, note = 60, held = Infinity, velocity = 1, frame = 0 }: Struck,
): { left: Float32Array; right: Float32Array } {
  const still = { frame: 0, tick: 0, framesPerTick: rate / 1920, playing: false, recording: false };
  const clock = { now: still, startFrame: 0, repeatClock: anchorLike(still, { playing: true }) };
  const voice = new DrumVoice(rate);
  voice.start(patch, { track: 0, pad: 0, velocity }, frame, clock, { ...PLAIN, note: patch.tone ? note : NaN });
  const frames = Math.round(seconds * rate);
  const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
  for (let done = 0; done < frames && voice.active; done += MAX_STRETCH) {
    if (done >= held * rate) voice.letGo();
    const run = Math.min(MAX_STRETCH, frames - done);
    bus.clear(run);
    voice.render(bus, run, clock);
    left.set(bus.left.subarray(0, run), done);
    right.set(bus.right.subarray(0, run), done);
  }
  return { left, right };
}

/**
 * A made sound as a recording of itself, and the settings with which that sounds as the sound did: what the stroke itself decides, and
 * what moves it, is not in the recording.
 */
export function asRecording({ source, settings }: Pick<Sound, 'source' | 'settings'>): {
  audio: SampleAudio;
  settings: SoundSettings;
} {
  const { lfos, plays, repeat, response, variation, voices, pan, room, ...shape } = settings;
  const struck = renderStroke(patchOf({ source, settings: { ...shape, pan: 0, room: 0 } }), { rate: SAMPLE_RATE, seconds: LONGEST_SECONDS }); // prettier-ignore
  const isMono = struck.left.every((v, i) => v === struck.right[i]);
  // In the middle each side has it with half its power.
  const whole = (isMono ? [struck.left] : [struck.left, struck.right]).map((side) => side.map((v) => v * Math.SQRT2));
  const loudest = whole.reduce((most, side) => side.reduce((high, v) => Math.max(high, Math.abs(v)), most), 0);
  let end = whole[0]!.length;
  while (end > 1 && whole.every((side) => Math.abs(side[end - 1]!) <= loudest * OVER)) end--;
  const recipe = recipeOf(source);
  const own: SoundSettings = { pan: pan ?? recipe.pan, room: room ?? recipe.room, voices: voices ?? recipe.rings };
  // A sample is never louder than full scale.
  const most = Math.max(1, loudest);
  const level = 20 * Math.log10(most);
  const louder = level > 0 ? { level: Math.min(SOUND_NUMBERS.level.max, level) } : {};
  const stay = { lfos, plays, repeat, response, variation };
  for (const key of Object.keys(stay) as (keyof typeof stay)[]) if (stay[key] === undefined) delete stay[key];
  return {
    audio: { channels: whole.map((side) => side.slice(0, end).map((v) => v / most)) },
    settings: { ...own, ...louder, ...(stay as SoundSettings) },
  };
}
