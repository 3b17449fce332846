import { cutsOf } from '@/core/document/kit';
import { selectTrack } from '@/store/selectors';
import { cutsSet } from '@/store/soundsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { KeyRow } from '../shared/KeyRow';
import { Sheet } from '../shared/Sheet';
import { Words } from '../shared/Words';
import { PadChoice } from './PadChoice';

/** Sounds that cut each other off, chosen as pads. */
export function CutsSheet() {
  const dispatch = useAppDispatch();
  const { id: track, kit, tones } = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  const { name } = kit.pads[pad]!.sound;
  const cuts = cutsOf(kit, pad);
  const set = (others: number[]) => dispatch(cutsSet({ track, pad, others }));
  return (
    <Sheet
      title="Cuts off"
      about={`Choose what ${name} and it cut off: struck, each ends the others, as a closed hat ends an open one.`}
    >
      {tones ? (
        <Words>Notes have no pads that cut each other off.</Words>
      ) : (
        <>
          <PadChoice
            label="Cuts off"
            pads={kit.pads}
            of={pad}
            chosen={cuts}
            onToggle={(other) => set(cuts.includes(other) ? cuts.filter((one) => one !== other) : [...cuts, other])}
          />
          <KeyRow keys={[{ text: 'Cuts off nothing', disabled: cuts.length === 0, act: () => void set([]) }]} />
        </>
      )}
    </Sheet>
  );
}
