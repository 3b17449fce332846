import { selectRedo, selectUndo } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { redone, undone } from '@/store/undoable';
import { ControlButton } from '../shared/ControlButton';

/** Takes the last step back; what it would change is told to assistive technology. */
export function UndoKey() {
  const dispatch = useAppDispatch();
  const undo = useAppSelector(selectUndo);
  return (
    <ControlButton
      label="Undo"
      maps={{ do: 'undo' }}
      icon="undo"
      description={undo ?? 'Nothing to undo'}
      disabled={undo === null}
      onPress={() => dispatch(undone())}
    />
  );
}

/** Does again what was undone. */
export function RedoKey() {
  const dispatch = useAppDispatch();
  const redo = useAppSelector(selectRedo);
  return (
    <ControlButton
      label="Redo"
      maps={{ do: 'redo' }}
      icon="redo"
      description={redo ?? 'Nothing to redo'}
      disabled={redo === null}
      onPress={() => dispatch(redone())}
    />
  );
}
