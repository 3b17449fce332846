import type { BeatSet } from '@/core/document/set';
import { trackStage, type Stage } from '@/core/document/stage';
import { SILENT } from '@/core/launch/launchState';
import type { Instruction } from '@/core/protocol/commands';
import type { EngineEvent } from '@/core/protocol/events';
import type { StageReport } from '@/store/stageSlice';

/** What the engine plays on a track and how it is gated, as it told or was asked. */
interface Asked {
  slot: number;
  mute: boolean;
  solo: boolean;
}

const SILENCE: Asked = { slot: SILENT, mute: false, solo: false };

/** Keeps the stage and the engine together: what the engine tells goes to the stage, what the stage asks for to the engine. */
export class StageFollower {
  private readonly asked = new Map<number, Asked>();

  /** What must be launched, muted or soloed so that the engine is where the stage is: a set was opened, a slot chosen. */
  follow(set: BeatSet, stage: Stage): Instruction[] {
    const out: Instruction[] = [];
    for (const track of set.order) {
      const { slot: current, stopped, mute, solo } = trackStage(stage, track);
      const slot = stopped ? SILENT : current;
      const before = this.asked.get(track) ?? SILENCE;
      if (slot !== before.slot) out.push({ type: 'launch', track, slot, on: 0, inPlace: true });
      if (mute !== before.mute || solo !== before.solo) {
        out.push({ type: 'muteSolo', track, mute: mute ? 1 : 0, solo: solo ? 1 : 0, on: 0 });
      }
      this.asked.set(track, { slot, mute, solo });
    }
    for (const track of this.asked.keys()) if (!set.tracks[track]) this.asked.delete(track);
    return out;
  }

  /** What one message of the engine's tells of the stage: one report a track. */
  reports(events: readonly EngineEvent[]): StageReport[] {
    const reports = new Map<number, StageReport>();
    const note = (track: number, told: Partial<Asked>, report: Omit<StageReport, 'track'>) => {
      this.asked.set(track, { ...(this.asked.get(track) ?? SILENCE), ...told });
      reports.set(track, { ...reports.get(track), ...report, track });
    };
    for (const event of events) {
      if (event.kind === 'loop') {
        const { track, slot } = event;
        // A track that is stopped stays on its slot.
        note(track, { slot }, slot === SILENT ? { stopped: true } : { stopped: false, slot });
      } else if (event.kind === 'waiting' && !event.beneath) {
        const muteSolo = { mute: event.muted === 1, solo: event.soloed === 1 };
        note(event.track, muteSolo, muteSolo);
      }
    }
    return [...reports.values()];
  }
}
