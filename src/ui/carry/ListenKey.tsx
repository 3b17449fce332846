import { useEffect, useState } from 'react';
import type { PlayedPart } from '@/instrument/playedPart';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { useInstrument } from '../shared/InstrumentContext';

/** Plays it apart from the song, which stops for it. */
export function ListenKey({ part }: { part: PlayedPart }) {
  const dispatch = useAppDispatch();
  const instrument = useInstrument();
  const [heard, setHeard] = useState<PlayedPart | null>(null);
  useEffect(() => () => part.close(), [part]);
  const isHeard = heard === part;
  const listen = () => {
    if (isHeard) {
      part.close();
      return setHeard(null);
    }
    if (instrument.performance.anchor.playing) instrument.stop();
    part.listen((problem) => {
      setHeard(null);
      if (problem) dispatch(noticed(`It cannot be heard: ${problem}.`));
    });
    return setHeard(part);
  };
  return (
    <ControlButton
      label="Listen"
      text="Listen"
      icon={isHeard ? 'stop' : 'play'}
      pressed={isHeard}
      onPress={listen}
      style={{ flexGrow: 1, paddingHorizontal: 6 }}
    />
  );
}
