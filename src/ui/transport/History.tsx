import { View } from 'react-native';
import { selectRedo, selectUndo } from '@/store/selectors';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { redone, undone } from '@/store/undoable';
import { ControlButton } from '../shared/ControlButton';

/** Undo and redo; what they would change is told to assistive technology. */
export function History() {
  const dispatch = useAppDispatch();
  const undo = useAppSelector(selectUndo);
  const redo = useAppSelector(selectRedo);
  return (
    <View style={{ flexDirection: 'row', gap: 4 }}>
      <ControlButton
        label="Undo"
        icon="undo"
        description={undo ?? 'Nothing to undo'}
        disabled={undo === null}
        onPress={() => dispatch(undone())}
      />
      <ControlButton
        label="Redo"
        icon="redo"
        description={redo ?? 'Nothing to redo'}
        disabled={redo === null}
        onPress={() => dispatch(redone())}
      />
    </View>
  );
}
