import type { ReactNode, Ref } from 'react';
import { PADS } from '@/core/document/limits';
import { fittedToContainer } from '../theme/fitText';
import { placesIn, RAIL_WIDTH, useRoom, type Room } from '../theme/room';
import { grown } from '../theme/type';

const PAD_PX = 80;
const GAP_PX = 6;
/** Where the room is short the gaps give way before the pads do. */
const SHORT_GAP_PX = 3;
/** Below this height of a pad its name would be cut: tools above the pads scroll before that. */
const LEAST_PX = 56;

/** Pads of a row: four by four, or two rows of eight where the screen lies and is wide enough for them. */
export function padColumns(room: Room, count: number = PADS): number {
  if (count < PADS) return fewColumns(room, count);
  const width = room.width - (placesIn(room) === 'rail' ? RAIL_WIDTH : 0);
  return room.layout === 'lying' && width >= 8 * PAD_PX + 9 * SHORT_GAP_PX ? 8 : 4;
}

/** A few large pads: two in a row upright, in one row or two where there is width. */
function fewColumns({ layout }: Room, count: number): number {
  if (layout === 'upright') return 2;
  return layout === 'lying' && count <= 5 ? count : Math.ceil(count / 2);
}

const ALL_PADS = Array.from({ length: PADS }, (_, pad) => pad);

interface Props {
  /** Accessible name. */
  label: string;
  /** The pads there are, 0..15 in rising order; all sixteen if none are given. */
  pads?: readonly number[];
  ref?: Ref<HTMLDivElement>;
  /** What lies on the place of each pad, 0..15. */
  children: (pad: number) => ReactNode;
}

/**
 * The places of the pads: pad 1 bottom left, their numbers rising to the right and upwards. Turning the device moves the
 * places and keeps what lies on them, so that what is held stays held.
 */
export function PadBoard({ label, pads = ALL_PADS, ref, children }: Props) {
  const room = useRoom();
  const columns = padColumns(room, pads.length);
  const rows = Math.ceil(pads.length / columns);
  const gap = room.layout === 'lying' || room.width < 360 ? SHORT_GAP_PX : GAP_PX;
  return (
    <div
      role="group"
      aria-label={label}
      ref={ref}
      onContextMenu={(event) => event.preventDefault()}
      style={{
        ...board,
        gap,
        minHeight: rows * (LEAST_PX + gap) - gap,
        gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`,
        gridTemplateRows: `repeat(${rows}, minmax(0, 1fr))`,
      }}
    >
      {pads.map((pad, i) => (
        <div key={pad} style={{ ...place, gridColumn: (i % columns) + 1, gridRow: rows - Math.floor(i / columns) }}>
          {children(pad)}
        </div>
      ))}
    </div>
  );
}

const board = { flex: '1 1 0', minWidth: 0, display: 'grid', touchAction: 'none' } as const;
// A container, so that what lies on it can take its size from it.
const place = { display: 'flex', minWidth: 0, minHeight: 0, containerType: 'size' } as const;

/** Size of a pad's name: as large as it fits, larger on larger pads. */
export function padNameSize(name: string): object {
  return {
    fontSize: fittedToContainer(name, { padding: 20, least: 11, most: `clamp(${grown(17)}, 11cqi, ${grown(30)})` }),
    lineHeight: '1.2em',
  };
}
