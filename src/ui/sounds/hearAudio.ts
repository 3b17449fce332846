import { SAMPLE_RATE, type SampleAudio } from '@/core/sample/levels';

/** Plays audio once, apart from the song. @returns ends it */
export function hearAudio({ channels }: SampleAudio): () => void {
  const context = new AudioContext({ sampleRate: SAMPLE_RATE });
  const buffer = new AudioBuffer({ length: Math.max(1, channels[0]!.length), numberOfChannels: channels.length, sampleRate: SAMPLE_RATE }); // prettier-ignore
  channels.forEach((channel, c) => buffer.copyToChannel(new Float32Array(channel), c));
  return play(context, buffer);
}

/** Plays a WAV file once, apart from the song. @returns ends it */
export function hearFile(bytes: Uint8Array<ArrayBuffer>): () => void {
  const context = new AudioContext({ sampleRate: SAMPLE_RATE });
  let end: () => void = () => void context.close().catch(() => undefined);
  void context.decodeAudioData(bytes.buffer).then((buffer) => {
    if (context.state !== 'closed') end = play(context, buffer);
  });
  return () => end();
}

function play(context: AudioContext, buffer: AudioBuffer): () => void {
  const source = new AudioBufferSourceNode(context, { buffer });
  source.connect(context.destination);
  const end = () => void context.close().catch(() => undefined);
  source.onended = end;
  source.start();
  return end;
}
