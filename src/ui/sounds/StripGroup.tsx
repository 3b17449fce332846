import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { ControlButton } from '../shared/ControlButton';

/** Which groups lie open, for as long as the page does. */
const open = new Map<string, boolean>();

interface Props {
  name: string;
  /** Whose it is, where there are several of the name. */
  of?: string;
  /** It lies open to begin with. */
  first?: boolean;
  children: ReactNode;
}

/** Strips of one kind under a heading that folds them away. */
export function StripGroup({ name, of, first, children }: Props) {
  const [isOpen, setOpen] = useState(open.get(name) ?? first === true);
  const label = of === undefined ? name : `${name} of ${of}`;
  return (
    <View role="group" aria-label={label} style={styles.group}>
      <ControlButton
        label={label}
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
