import { Text } from 'react-native-paper';

/** Words that only assistive technology reads, of what points at them by `aria-describedby`. */
export function Description({ id, children }: { id: string; children: string }) {
  return (
    <Text id={id} style={{ display: 'none' }}>
      {children}
    </Text>
  );
}
