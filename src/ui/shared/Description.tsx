import { Text } from 'react-native-paper';

/** Text for assistive technology only: the description of the elements whose `aria-describedby` names it. */
export function Description({ id, children }: { id: string; children: string }) {
  return (
    <Text id={id} style={{ display: 'none' }}>
      {children}
    </Text>
  );
}
