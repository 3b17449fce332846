import { fireEvent, render, screen } from '@testing-library/react-native';
import { PaperProvider } from 'react-native-paper';
import { ControlButton } from './ControlButton';
import { HoldButton } from './HoldButton';
import { NumberField } from './NumberField';

const onPaper = (element: React.ReactElement) => render(<PaperProvider>{element}</PaperProvider>);

test('a key has its name and tells whether it is on', () => {
  const press = jest.fn();
  onPaper(<ControlButton label="Metronome" text="Off" pressed={false} onPress={press} />);
  fireEvent.press(screen.getByRole('button', { name: 'Metronome' }));
  expect(press).toHaveBeenCalledTimes(1);
});

test('a disabled key does nothing', () => {
  const press = jest.fn();
  onPaper(<ControlButton label="Undo" icon="undo" disabled onPress={press} />);
  fireEvent.press(screen.getByRole('button', { name: 'Undo' }));
  expect(press).not.toHaveBeenCalled();
});

describe('a number field', () => {
  const field = (onType: (text: string) => boolean, onStep: (steps: number) => void = () => undefined) =>
    onPaper(
      <NumberField
        label="Tempo"
        caption="BPM"
        value={112}
        min={20}
        max={300}
        text="112"
        onType={onType}
        onStep={onStep}
      />,
    );

  test('gives what was typed when it is left, once', () => {
    const type = jest.fn(() => true);
    field(type);
    const input = screen.getByLabelText('Tempo');
    fireEvent(input, 'focus');
    fireEvent.changeText(input, '96.5');
    fireEvent(input, 'blur');
    fireEvent(input, 'blur');
    expect(type.mock.calls).toEqual([['96.5']]);
  });

  test('shows the old value again when the text is refused or nothing was typed', () => {
    const type = jest.fn(() => false);
    field(type);
    const input = screen.getByLabelText('Tempo');
    fireEvent(input, 'focus');
    fireEvent(input, 'blur');
    expect(type).not.toHaveBeenCalled();
    fireEvent(input, 'focus');
    fireEvent.changeText(input, 'fast');
    fireEvent(input, 'submitEditing');
    expect(input.props.value).toBe('112');
  });

  test('steps with the arrow keys', () => {
    const step = jest.fn();
    field(() => true, step);
    const input = screen.getByLabelText('Tempo');
    const key = (name: string) =>
      fireEvent(input, 'keyPress', { nativeEvent: { key: name }, preventDefault: () => undefined });
    ['ArrowUp', 'ArrowDown', 'PageUp', '5'].forEach(key);
    expect(step.mock.calls).toEqual([[1], [-1], [10]]);
  });
});

test('a key that is held is on until it is let go, or goes away', () => {
  const hold = jest.fn();
  const key = { key: ' ', preventDefault: () => undefined };
  const { unmount } = onPaper(<HoldButton label="Lift" text="Lift" onHold={hold} />);
  const button = screen.getByLabelText('Lift');
  fireEvent(button, 'keyDown', key);
  fireEvent(button, 'keyUp', key);
  fireEvent(button, 'keyDown', key);
  unmount();
  expect(hold.mock.calls).toEqual([[true], [false], [true], [false]]);
});
