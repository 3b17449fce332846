import { FIRST_ROOM, type RoomSettings } from '@/core/document/mix';
import { roomSet } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { SheetTitle } from '../shared/Sheet';
import { ValueStrip } from '../shared/ValueStrip';
import { ROOM_SCALES } from './mixScales';

/** The room that all channels and pads send to. */
export function RoomStrips() {
  const dispatch = useAppDispatch();
  const room = useAppSelector((state) => selectSet(state).mix?.room ?? FIRST_ROOM);
  const strip = (of: keyof RoomSettings, name: string, caption: string) => (
    <ValueStrip
      label={`Room ${name}`}
      caption={caption}
      value={room[of]}
      own={FIRST_ROOM[of]}
      scale={ROOM_SCALES[of]}
      onSet={(value, gesture) => dispatch(roomSet({ change: { [of]: value ?? FIRST_ROOM[of] }, gesture }))}
    />
  );
  return (
    <>
      <SheetTitle>Room</SheetTitle>
      {strip('size', 'size', 'Size')}
      {strip('preDelay', 'pre-delay', 'Answers after')}
      {strip('damping', 'damping', 'Swallows highs')}
      {strip('width', 'width', 'Wide')}
    </>
  );
}
