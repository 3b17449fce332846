import { WAV_FORMATS, type WavFormat } from '@/core/formats/wav';
import { carrySet } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { PopMenu } from '../shared/PopMenu';
import { KIND_NAMES, KINDS, type Carry } from './useCarry';

const WAV_NAMES: Record<WavFormat, string> = {
  pcm16: 'WAV in 16 bits',
  pcm24: 'WAV in 24 bits',
  float32: 'WAV in 32 bits, float',
};

/** Carries the stretch, or all of the run, away as a file. */
export function CarryKey({ carry }: { carry: Carry }) {
  const dispatch = useAppDispatch();
  const { wav, tail } = useAppSelector((state) => state.settings.carry);
  return (
    <PopMenu
      label="Carry away"
      text="Carry away"
      disabled={carry.now?.state === 'making'}
      style={{ paddingHorizontal: 6 }}
      items={[
        ...KINDS.map((kind) => ({ title: KIND_NAMES[kind], act: () => carry.begin(kind) })),
        ...WAV_FORMATS.map((format, i) => ({
          title: WAV_NAMES[format],
          chosen: wav === format,
          ruled: i === 0,
          act: () => dispatch(carrySet({ wav: format })),
        })),
        { title: 'With what rings on', chosen: tail, ruled: true, act: () => dispatch(carrySet({ tail: !tail })) },
      ]}
    />
  );
}
