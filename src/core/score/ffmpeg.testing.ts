import { Buffer } from 'node:buffer';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Stereo } from '../engine/offline';
import { wavHeader, WavSamples, type WavFormat } from '../formats/wav';

/** Writes audio to a WAV file of its own. @returns its path */
export function wavFile(audio: Stereo, format: WavFormat, rate: number): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), 'file.wav');
  writeFileSync(file, Buffer.concat([wavHeader(format, rate, audio.left.length), new WavSamples(format).bytes(audio)]));
  return file;
}

/** Loudness (LUFS) and true peak (dBTP) of a file by ffmpeg's ebur128, to a tenth. */
export function ebur128(file: string): { integrated: number; peak: number } {
  const { stderr } = spawnSync('ffmpeg', ['-nostats', '-i', file, '-af', 'ebur128=peak=true', '-f', 'null', '-'], { encoding: 'utf8' }); // prettier-ignore
  const summary = stderr.slice(stderr.lastIndexOf('Summary'));
  const found = (label: string) => Number(new RegExp(`${label}:\\s+(-?[\\d.]+)`).exec(summary)![1]);
  return { integrated: found('I'), peak: found('Peak') };
}
