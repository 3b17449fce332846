/** One track as it is being performed. */
export interface TrackStage {
  /** The slot that plays, or would if the track were not stopped. */
  slot: number;
  /** No pattern of it plays until one is launched. */
  stopped: boolean;
  mute: boolean;
  solo: boolean;
  /** The slot from which this one was opened: what plays again when an undo takes the opened pattern away. */
  back?: number;
}

/**
 * What is being performed: kept and stored with the set, but no part of what was made. Undo never touches it; the engine
 * tells it.
 */
export interface Stage {
  /** Id of the track that pads play and Steps shows. */
  shown: number;
  /** By id of the track. */
  tracks: Record<number, TrackStage>;
}

export const FIRST_STAGE: TrackStage = { slot: 0, stopped: false, mute: false, solo: false };
/** How a track begins that was added to a set. */
export const WAITING_STAGE: TrackStage = { ...FIRST_STAGE, stopped: true };

/** How a track stands: one of which nothing is known yet waits. */
export function trackStage({ tracks }: Stage, track: number): TrackStage {
  return tracks[track] ?? WAITING_STAGE;
}
