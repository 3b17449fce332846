import { NumberField } from './NumberField';

interface Props {
  label: string;
  caption: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
}

/** px of a drag for one step. */
const STEP_PX = 12;

/** A whole number: typed, stepped with keys, or dragged. */
export function WholeNumber({ label, caption, value, min, max, onChange }: Props) {
  const set = (raw: number) => {
    const next = Math.min(max, Math.max(min, Math.round(raw)));
    if (next !== value) onChange(next);
  };
  return (
    <NumberField
      label={label}
      caption={caption}
      value={value}
      min={min}
      max={max}
      text={String(value)}
      onType={(text) => {
        const read = Number(text);
        if (text.trim() === '' || !Number.isFinite(read)) return false;
        set(read);
        return true;
      }}
      onStep={(steps) => set(value + steps)}
      onDrag={(px, from) => set(from + px / STEP_PX)}
      style={{ flexGrow: 0, width: 76 }}
    />
  );
}
