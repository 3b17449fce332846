import { MOST_ALSO, MOST_DELAY_MS, overreaching, type AlsoPlays, type KitPad } from '@/core/document/kit';
import { GRID_NAMES, type GridName } from '@/core/quantize/grid';
import { selectTrack } from '@/store/selectors';
import { alsoPlaysSet } from '@/store/soundsSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { Choice } from '../shared/Choice';
import { Sheet, SheetTitle } from '../shared/Sheet';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { PadChoice } from './PadChoice';

const IN_MS = 'ms';
const DELAYS = [{ value: IN_MS, name: 'in ms' }, ...[...GRID_NAMES].reverse().map((value) => ({ value, name: value }))];

/** Up to three other pads that sound with a pad: at once, or a little later. */
export function AlsoSheet() {
  const dispatch = useAppDispatch();
  const { id: track, kit, tones } = useAppSelector(selectTrack);
  const pad = useAppSelector((state) => state.steps.pad);
  const { sound, alsoPlays = [] } = kit.pads[pad]!;
  const set = (also: AlsoPlays[], gesture?: string) =>
    dispatch(alsoPlaysSet({ track, pad, also, ...(gesture && { gesture }) }));
  const change = (other: number, part: Partial<AlsoPlays>, gesture?: string) =>
    set(
      alsoPlays.map((one) => (one.pad === other ? { ...one, ...part } : one)),
      gesture,
    );
  const chosen = alsoPlays.map((one) => one.pad);
  const toggle = (other: number) =>
    set(
      chosen.includes(other)
        ? alsoPlays.filter((one) => one.pad !== other)
        : [...alsoPlays, { pad: other, share: 0.8 }],
    );
  return (
    <Sheet title="Also plays" about={`Choose up to three other sounds that sound with ${sound.name}.`}>
      {tones ? (
        <Words>Notes play no other pads.</Words>
      ) : (
        <PadChoice
          label="Also plays"
          pads={kit.pads}
          of={pad}
          chosen={chosen}
          barred={barredFor(kit.pads, pad)}
          onToggle={toggle}
        />
      )}
      {!tones &&
        alsoPlays.map(({ pad: other, share, ms = 0, note }) => {
          const { name } = kit.pads[other]!.sound;
          return (
            <SectionOf key={other} name={name}>
              <Strip
                label={`Loudness of ${name}`}
                value={share}
                unit="%"
                onChange={(next, gesture) => change(other, { share: next }, gesture)}
              />
              <Choice
                label={`Delay of ${name}`}
                caption="Later by"
                value={note ?? IN_MS}
                options={DELAYS}
                onChoose={(value) => set(alsoPlays.map((one) => (one.pad === other ? delayed(one, value) : one)))}
              />
              {note === undefined && (
                <Strip
                  label={`Delay of ${name} in ms`}
                  value={ms}
                  max={MOST_DELAY_MS}
                  step={1}
                  scale={1}
                  unit="ms"
                  onChange={(next, gesture) => change(other, { ms: next }, gesture)}
                />
              )}
            </SectionOf>
          );
        })}
    </Sheet>
  );
}

function SectionOf({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <SheetTitle>{name}</SheetTitle>
      {children}
    </>
  );
}

function delayed({ pad, share, ms = 0 }: AlsoPlays, value: string): AlsoPlays {
  return value === IN_MS ? { pad, share, ms } : { pad, share, note: value as GridName };
}

/** Pads that cannot be added, and why: they would play in a circle, or it would be too many. */
function barredFor(pads: readonly KitPad[], of: number): Map<number, string> {
  const { alsoPlays = [] } = pads[of]!;
  const barred = new Map<number, string>();
  pads.forEach((_, other) => {
    if (other === of || alsoPlays.some((one) => one.pad === other)) return;
    const also = [...alsoPlays, { pad: other, share: 1 }];
    if (alsoPlays.length >= MOST_ALSO) barred.set(other, `${MOST_ALSO} are the most.`);
    else if (overreaching(pads.map((own, i) => (i === of ? { alsoPlays: also } : own))) >= 0) {
      barred.set(other, 'It would play itself in a circle, or too many at once.');
    }
  });
  return barred;
}
