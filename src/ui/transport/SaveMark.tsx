import { noticed } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';

/** While what was made is not saved: a mark that stays, and says why when it is touched, and offers to carry the set away. */
export function SaveMark() {
  const dispatch = useAppDispatch();
  const trouble = useAppSelector((state) => state.session.saveTrouble);
  if (trouble === null) return null;
  return (
    <ControlButton
      tone="record"
      label="Not saved"
      icon="content-save-alert-outline"
      description={trouble}
      onPress={() => dispatch(noticed(trouble, 'bundle'))}
    />
  );
}
