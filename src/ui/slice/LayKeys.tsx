import { LAID_ONTO, type LaidOnto } from '@/core/slice/layPieces';
import { selectTrack } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Segments } from '../shared/Segments';
import { SheetTitle } from '../shared/Sheet';

/** How pieces are laid onto pads. */
export interface Laying {
  onto: LaidOnto;
  withPattern: boolean;
}

interface Props {
  laying: Laying;
  /** A pattern needs the recording's tempo. */
  hasTempo: boolean;
  onChange: (laying: Laying) => void;
}

/** Which pads the pieces of a recording go to. */
export function LayKeys({ laying, hasTempo, onChange }: Props) {
  const { name } = useAppSelector(selectTrack);
  const names: Record<LaidOnto, string> = { here: name, new: 'A new track' };
  const { onto, withPattern } = laying;
  return (
    <>
      <SheetTitle>Each piece its pad</SheetTitle>
      <Segments
        label="Onto the pads of"
        caption="Pads of"
        value={onto}
        options={LAID_ONTO.map((value) => ({ value, name: names[value] }))}
        onChoose={(next) => onChange({ ...laying, onto: next })}
      />
      <ControlButton
        label="A pattern plays them in their order"
        text="A pattern plays them in their order"
        pressed={withPattern && hasTempo}
        disabled={!hasTempo}
        onPress={() => onChange({ ...laying, withPattern: !withPattern })}
      />
    </>
  );
}
