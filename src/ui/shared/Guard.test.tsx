import { fireEvent, render, screen } from '@testing-library/react-native';
import { PaperProvider, Text } from 'react-native-paper';
import { Guard } from './Guard';

test('a part that fails says so and can be shown again; what stands beside it stays', () => {
  const quiet = jest.spyOn(console, 'error').mockImplementation(() => undefined); // React tells of each fault there
  let broken = true;
  function Part() {
    if (broken) throw new Error('the chart was not found');
    return <Text>Chart</Text>;
  }
  const close = jest.fn();
  render(
    <PaperProvider>
      <Text>Transport</Text>
      <Guard name="The chart" onAgain={() => (broken = false)} onClose={close}>
        <Part />
      </Guard>
    </PaperProvider>,
  );
  screen.getByText('Transport');
  screen.getByText(/The chart cannot be shown \(the chart was not found\)/);
  fireEvent.press(screen.getByRole('button', { name: 'Close what failed' }));
  expect(close).toHaveBeenCalledTimes(1);
  fireEvent.press(screen.getByRole('button', { name: 'Show again' }));
  screen.getByText('Chart');
  quiet.mockRestore();
});
