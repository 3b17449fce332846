import { NUMBER_NAMES, type NumberSetting } from '@/core/document/sound';
import { ownValue } from '@/core/shelf/ownValues';
import { soundNumberSet } from '@/store/soundsSlice';
import { useAppDispatch } from '@/store/store';
import { ValueStrip, type ValueScale } from '../shared/ValueStrip';
import { numberText, rangeOf, settingNow, shareOf, stepped, STRIPS, tidy, valueAt } from './settingWords';
import type { ShownSound } from './useSound';

/** One number of a sound as a wide strip; a double touch gives it back to the sound. */
export function SettingStrip({ setting, sound }: { setting: NumberSetting; sound: ShownSound }) {
  const dispatch = useAppDispatch();
  const { track, pad, source, settings } = sound;
  const facts = STRIPS[setting];
  const scale: ValueScale = {
    ...rangeOf(setting, source),
    share: (value) => shareOf(setting, value, source),
    at: (share) => valueAt(setting, share, source),
    stepped: (value, steps) => stepped(setting, value, steps, source),
    shown: (value) => facts.shown(value, source),
    text: (number) => numberText(setting, number),
    read: (number, unit) => tidy(setting, facts.read(number, source, unit), source),
  };
  return (
    <ValueStrip
      label={NUMBER_NAMES[setting]}
      caption={NUMBER_NAMES[setting]}
      value={settingNow(setting, source, settings)}
      own={ownValue(source, setting, sound.own)}
      scale={scale}
      onSet={(value, gesture) => dispatch(soundNumberSet({ track, pad, setting, value, gesture }))}
    />
  );
}
