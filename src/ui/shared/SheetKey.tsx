import type { StyleProp, ViewStyle } from 'react-native';
import { sheetToggled, type SheetName } from '@/store/sessionSlice';
import { useAppDispatch, useAppSelector } from '@/store/store';
import { ControlButton } from './ControlButton';

interface Props {
  name: SheetName;
  title: string;
  style?: StyleProp<ViewStyle>;
}

/** A key that opens a sheet, and closes it while it is the open one. */
export function SheetKey({ name, title, style }: Props) {
  const dispatch = useAppDispatch();
  const open = useAppSelector((state) => state.session.sheet === name);
  return (
    <ControlButton
      label={title}
      text={title}
      pressed={open}
      onPress={() => dispatch(sheetToggled(name))}
      style={style}
    />
  );
}
