import { METERS } from '@/core/document/set';
import type { GridName } from '@/core/quantize/grid';
import { selectSet } from '@/store/selectors';
import { sheetToggled } from '@/store/sessionSlice';
import { fixedVelocitySet, fixedVelocityToggled, themeSet, type ThemeChoice } from '@/store/settingsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { KeyRow } from '../shared/KeyRow';
import { Segments } from '../shared/Segments';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { OnThisDevice } from './OnThisDevice';
import { CLICK_SOUNDS, type ClickSound, type ClickTime } from '@/core/document/metronome';
import { metronomeSet, meterSet } from '@/store/timeSlice';

const THEME_NAMES: { value: ThemeChoice; text: string }[] = [
  { value: 'dark', text: 'Dark' },
  { value: 'light', text: 'Light' },
  { value: 'contrast', text: 'High contrast' },
  { value: 'system', text: 'As the device' },
];
const SOUND_WORDS: Record<ClickSound, string> = { wood: 'Wood', bell: 'Bell', tick: 'Tick' };
const WHEN: { value: ClickTime; name: string }[] = [
  { value: 'always', name: 'Always' },
  { value: 'recording', name: 'Recording' },
  { value: 'countIn', name: 'Count-in only' },
];
const BETWEEN: { value: GridName | 'none'; name: string }[] = [
  { value: 'none', name: 'Beat' },
  { value: '1/8', name: '1/8' },
  { value: '1/8T', name: '1/8T' },
  { value: '1/16', name: '1/16' },
];

/** Settings that are changed rarely: time, metronome, touch, looks, and the list of keys. */
export default function SetupSheet() {
  const dispatch = useAppDispatch();
  const metronome = useAppSelector((state) => selectSet(state).metronome);
  const meter = useAppSelector((state) => selectSet(state).meter);
  const fixed = useAppSelector((state) => state.settings.fixedVelocity);
  const theme = useAppSelector((state) => state.settings.theme);
  const meterIndex = METERS.findIndex((m) => m.beats === meter.beats && m.unit === meter.unit);
  return (
    <Sheet title="Setup" about="What is set once: meter, click, touch, looks and keys.">
      <SheetTitle>Meter</SheetTitle>
      <Segments
        label="Meter"
        value={meterIndex}
        options={METERS.map(({ beats, unit }, i) => ({ value: i, name: `${beats}/${unit}` }))}
        numeric
        onChoose={(i) => dispatch(meterSet(METERS[i]!))}
      />
      <SheetTitle>Metronome</SheetTitle>
      <Segments
        label="Click sound"
        caption="Sound"
        value={metronome.sound}
        options={CLICK_SOUNDS.map((value) => ({ value, name: SOUND_WORDS[value] }))}
        onChoose={(sound) => dispatch(metronomeSet({ sound }))}
      />
      <Segments
        label="Click when"
        caption="When"
        value={metronome.when}
        options={WHEN}
        onChoose={(when) => dispatch(metronomeSet({ when }))}
      />
      <Segments
        label="Click every"
        caption="Every"
        value={metronome.between ?? 'none'}
        options={BETWEEN}
        onChoose={(between) => dispatch(metronomeSet({ between: between === 'none' ? null : between }))}
      />
      <Strip
        label="Metronome level"
        maps={{ do: 'clickLevel' }}
        value={metronome.level}
        onChange={(level) => dispatch(metronomeSet({ level }))}
      />
      <SheetTitle>Touch</SheetTitle>
      <ControlButton
        label="Fixed velocity"
        maps={{ do: 'fixedVelocity' }}
        text={fixed.on ? 'Fixed velocity: on' : 'Fixed velocity: off'}
        pressed={fixed.on}
        onPress={() => dispatch(fixedVelocityToggled())}
      />
      <Strip
        label="Fixed velocity level"
        value={fixed.value}
        min={1 / 127}
        step={1 / 127}
        scale={127}
        onChange={(value) => dispatch(fixedVelocitySet(value))}
      />
      <ControlButton
        label="Latency check"
        text="Latency check: tap along with eight clicks"
        onPress={() => dispatch(sheetToggled('latency'))}
      />
      <SheetTitle>Controllers</SheetTitle>
      <ControlButton
        label="Devices"
        text="Devices: controllers, and what they do"
        onPress={() => dispatch(sheetToggled('devices'))}
      />
      <SheetTitle>Look</SheetTitle>
      <KeyRow
        keys={THEME_NAMES.map(({ value, text }) => ({
          text,
          pressed: value === theme,
          act: () => void dispatch(themeSet(value)),
        }))}
      />
      <SheetTitle>Keys</SheetTitle>
      <ControlButton
        label="All keys"
        text="All keys: see and change them ( ? )"
        onPress={() => dispatch(sheetToggled('keys'))}
      />
      <OnThisDevice />
    </Sheet>
  );
}
