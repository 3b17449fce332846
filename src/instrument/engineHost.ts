import type { LiveHost } from '@/audio/liveHost';

/** What the instrument needs of the host that runs the engine. */
export type EngineHost = Pick<
  LiveHost,
  'start' | 'restart' | 'unlock' | 'sendAll' | 'frameHeard' | 'engineFrameHeard' | 'timeHeard' | 'sampleRate'
>;

/** Makes the host: it reports its state and the engine's events. */
export type MakeHost = (...listeners: ConstructorParameters<typeof LiveHost>) => EngineHost;
