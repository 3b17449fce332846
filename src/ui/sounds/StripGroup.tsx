import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { ControlButton } from '../shared/ControlButton';

/** Which groups lie open, for as long as the page does. */
const open = new Map<string, boolean>();

/** Strips of one kind under a heading that folds them away. */
export function StripGroup({ name, first, children }: { name: string; first?: boolean; children: ReactNode }) {
  const [isOpen, setOpen] = useState(open.get(name) ?? first === true);
  return (
    <View role="group" aria-label={name} style={styles.group}>
      <ControlButton
        label={name}
        text={name}
        icon={isOpen ? 'chevron-up' : 'chevron-down'}
        expanded={isOpen}
        onPress={() => {
          open.set(name, !isOpen);
          setOpen(!isOpen);
        }}
        style={styles.head}
      />
      {isOpen && children}
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: 5 },
  head: { alignItems: 'flex-start' },
});
