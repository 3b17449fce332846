import { useEffect } from 'react';
import type { Shelved } from '@/core/shelf/shelved';
import { noticed, type Tried } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { renderBeat } from '@/storage/beatSound';
import { hearFile } from './hearAudio';

/** While the song stands still, a kit or voice that is tried plays a beat or phrase of its own, once; touched again, once more. */
export function useOwnBeat(now: Tried | null, entries: readonly Shelved[]): void {
  const dispatch = useAppDispatch();
  const playing = useAppSelector((state) => state.session.playing);
  const id = now && !('sound' in now) ? now.id : null;
  useEffect(() => {
    const entry = entries.find((one) => one.id === id);
    if (!entry || playing) return;
    const { file, cancel } = renderBeat(entry);
    let end = cancel;
    let isOver = false;
    file
      .then((bytes) => {
        if (!isOver) end = hearFile(bytes);
      })
      .catch((error: unknown) => {
        const reason = error instanceof Error ? error.message : String(error);
        if (reason !== 'cancelled') dispatch(noticed(`It could not be heard by itself: ${reason}.`));
      });
    return () => {
      isOver = true;
      end();
    };
  }, [now, playing]); // eslint-disable-line react-hooks/exhaustive-deps -- what is tried is named by `now`; that the list changes is no reason to play
}
