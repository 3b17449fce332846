import { VoiceEnds } from '../engine/voiceEnds';
import type { Stretch } from './make';
import type { Score } from './score';
import { ScoreRender, type ScoreSound } from './scoreRender';

/** What of a score is rendered. */
export interface Part {
  stretch: Stretch;
  sound: ScoreSound;
}

/**
 * Renders of one score, one after the other. Which voices end when is the same whichever track is heard: the first of a stretch's stems finds
 * it out, and the next ones render the voices of their own track alone.
 */
export class ScoreRenders {
  private learnt: { ends: VoiceEnds; by: ScoreRender } | null = null;

  constructor(
    private readonly score: Score,
    private readonly sampleRate: number,
  ) {}

  begin({ stretch, sound }: Part): ScoreRender {
    const render = new ScoreRender(this.score, stretch, this.sampleRate, sound);
    // Of a mix all voices are heard.
    if (sound.track === null) return render;
    if (this.learnt?.by.isDone && this.learnt.by.spans(render)) render.engine.followEnds(this.learnt.ends);
    else {
      this.learnt = { ends: new VoiceEnds(), by: render };
      render.engine.learnEnds(this.learnt.ends);
    }
    return render;
  }
}
