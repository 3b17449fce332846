import type { Launcher } from '../launch/launcher';
import type { EngineState } from '../protocol/engineState';
import type { VoicePool } from '../sound/voicePool';
import type { AlsoPlays } from './alsoPlays';
import type { Hands } from './hands';
import type { LatencyCheck } from './latencyCheck';
import type { MixMoves } from './mixMoves';
import type { Mixer } from './mixer';
import type { NoteRepeater } from './noteRepeater';
import type { PadControls } from './padControls';
import type { Recorder } from './recorder';
import type { TrackRack } from './trackRack';
import type { Transport } from './transport';

interface Parts {
  transport: Transport;
  launcher: Launcher;
  rack: TrackRack;
  recorder: Recorder;
  repeater: NoteRepeater;
  controls: PadControls;
  hands: Hands;
  check: LatencyCheck;
  mixer: Mixer;
  mixMoves: MixMoves;
  voices: VoicePool;
  also: AlsoPlays;
}

/**
 * What of an engine is neither its document nor its sound. It can be taken only while the engine rests: then nothing is on its way
 * through voices, room and limiter, and a new engine, which has never sounded, is in the same state as one that has played for hours.
 */
export class Snapshots {
  constructor(private readonly parts: Parts) {}

  /** Whether nothing is played, held or left to ring. */
  get isResting(): boolean {
    const { transport, repeater, hands, check, mixer, mixMoves, voices, also } = this.parts;
    const quiet = !transport.playing && !also.isWaiting && voices.ringing === 0 && mixer.isSilent;
    return quiet && !repeater.isRepeating && !check.isOn && !hands.isHolding && !mixMoves.isHeld;
  }

  take(): EngineState {
    const { transport, launcher, recorder, repeater, controls } = this.parts;
    return {
      transport: transport.data,
      launcher: launcher.data,
      serial: recorder.lastSerial,
      repeater: repeater.data,
      turns: controls.data,
    };
  }

  /** Into an engine that was told the document, and has played nothing yet. */
  restore(state: EngineState): void {
    const { transport, launcher, rack, recorder, repeater, controls, mixer } = this.parts;
    transport.takeData(state.transport);
    launcher.takeData(state.launcher);
    rack.takeData(launcher.live);
    recorder.takeSerial(state.serial);
    repeater.takeData(state.repeater);
    controls.takeData(state.turns);
    mixer.arrive();
  }
}
