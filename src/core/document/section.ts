/** What a section does with one track: a slot plays, its chain does, or it stops (null). */
export interface SectionPart {
  /** Id of the track. */
  track: number;
  plays: number | 'chain' | null;
}

/** A named set of patterns that are launched as one. */
export interface Section {
  /** Unique within the set. */
  id: number;
  name: string;
  colour: number;
  /** Tracks that are not named go on as they are. */
  parts: SectionPart[];
  /** How often its longest loop goes round before what comes then. */
  rounds: number;
  /** The section that follows, 'stop', or absent: it goes on. */
  then?: number | 'stop';
}
