import { MAX_GROUPS } from '@/core/document/mix';
import { tracksOf } from '@/core/document/set';
import { groupAdded } from '@/store/mixSlice';
import { selectSet } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { FEATHERS } from '../theme/tokens';

/** Makes a group in a colour that nothing has yet, and returns its id; null: there are as many as there can be. */
export function useNewGroup(): (() => number) | null {
  const dispatch = useAppDispatch();
  const set = useAppSelector(selectSet);
  const groups = set.mix?.groups ?? [];
  const id = Array.from({ length: MAX_GROUPS }, (_, i) => i).find((free) => !groups.some((group) => group.id === free));
  if (id === undefined) return null;
  return () => {
    const used = [...tracksOf(set), ...groups].map(({ colour }) => colour);
    const free = FEATHERS.findIndex((_, tone) => !used.includes(tone));
    dispatch(groupAdded({ id, name: `Group ${id + 1}`, colour: Math.max(0, free), level: 1 }));
    return id;
  };
}
