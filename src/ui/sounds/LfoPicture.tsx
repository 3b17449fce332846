import type { Lfo } from '@/core/document/lfo';
import { lfoWave } from '@/core/sound/lfoVoice';
import { CurvePicture } from '../shared/CurvePicture';

/** Two cycles. */
const CYCLES = 2;

/** The wave's shape, as it is: the lower end of its reach may be the higher value. */
export function LfoPicture({ lfo: { shape, low, high } }: { lfo: Lfo }) {
  const curve = (place: number) => {
    const wave = lfoWave(shape, CYCLES * place, 0.01, 7);
    return high >= low ? wave : 1 - wave;
  };
  return <CurvePicture label="Two cycles of the wave" curve={curve} height={52} />;
}
