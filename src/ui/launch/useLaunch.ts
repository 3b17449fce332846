import { useEffect, useState, useSyncExternalStore } from 'react';
import { beatsUntil } from '@/core/time/position';
import type { Performance } from '@/instrument/performance';
import { selectSet } from '@/store/selectors';
import { useAppSelector } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';

/** Subscribes to a value of what plays and waits, as the engine reports it. `select` must return a string, a number or a boolean. */
export function useLaunch<T extends string | number | boolean>(select: (performance: Performance) => T): T {
  const { performance } = useInstrument();
  return useSyncExternalStore(performance.onLaunch, () => select(performance));
}

/** Whole beats until a song tick, counted down as the player hears the song; null for never, and while it stands still. */
export function useBeatsLeft(tick: number): number | null {
  const { performance } = useInstrument();
  const meter = useAppSelector((state) => selectSet(state).meter);
  const playing = useAppSelector((state) => state.session.playing);
  const counts = playing && tick < Infinity;
  const read = () => (counts ? beatsUntil(tick, performance.tickNow, meter) : null);
  const [beats, setBeats] = useState(read);
  useEffect(() => {
    if (!counts) return undefined;
    let request = 0;
    // React renders only when the number changes.
    const look = () => {
      setBeats(beatsUntil(tick, performance.tickNow, meter));
      request = requestAnimationFrame(look);
    };
    look();
    return () => cancelAnimationFrame(request);
  }, [counts, tick, performance, meter]);
  return counts ? (beats ?? read()) : null;
}

/** "in 3 beats" */
export function inBeats(beats: number | null): string {
  return beats === null ? '' : ` in ${beats} ${beats === 1 ? 'beat' : 'beats'}`;
}
