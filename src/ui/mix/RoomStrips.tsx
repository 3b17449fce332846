import { FIRST_ROOM, type RoomSettings } from '@/core/document/mix';
import { roomSet } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { SheetTitle } from '../shared/Sheet';
import { ReturnStrip } from './ReturnStrip';

/** The room that all channels and pads send to. */
export function RoomStrips() {
  const dispatch = useAppDispatch();
  const room = useAppSelector((state) => selectSet(state).mix?.room ?? FIRST_ROOM);
  const strip = (control: keyof RoomSettings, caption: string) => (
    <ReturnStrip
      moved={{ on: 'room', control }}
      caption={caption}
      setting={room[control]}
      onSet={(value, gesture) => dispatch(roomSet({ change: { [control]: value }, gesture }))}
    />
  );
  return (
    <>
      <SheetTitle>Room</SheetTitle>
      {strip('size', 'Size')}
      {strip('preDelay', 'Answers after')}
      {strip('damping', 'Swallows highs')}
      {strip('width', 'Wide')}
    </>
  );
}
