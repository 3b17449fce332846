import { Component, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { ControlButton } from './ControlButton';

interface Props {
  /** What it guards, in words that begin a sentence. */
  name: string;
  children: ReactNode;
  /** Called when the part is to be shown again, before it is. */
  onAgain?: () => void;
  /** Leaves the part, where one can. */
  onClose?: () => void;
}

/**
 * Keeps a fault in one part of the screen from taking the rest along: music, transport and every other part go on, and the part
 * says what happened and can be shown again. A class, since React tells of faults in no other way.
 */
export class Guard extends Component<Props, { fault: Error | null }> {
  override state: { fault: Error | null } = { fault: null };

  static getDerivedStateFromError(fault: Error) {
    return { fault };
  }

  override render(): ReactNode {
    const { fault } = this.state;
    const { name, children, onAgain, onClose } = this.props;
    if (!fault) return children;
    const again = () => {
      onAgain?.();
      this.setState({ fault: null });
    };
    return (
      <View role="alert" style={styles.box}>
        <Text variant="bodyLarge">
          {`${name} cannot be shown (${fault.message}). The music goes on, and nothing is lost.`}
        </Text>
        <View style={styles.keys}>
          <ControlButton tone="primary" label="Show again" text="Show again" onPress={again} />
          {onClose && <ControlButton label="Close what failed" text="Close" onPress={onClose} />}
        </View>
      </View>
    );
  }
}

const styles = StyleSheet.create({
  box: { padding: 16, gap: 12, alignItems: 'flex-start', maxWidth: 720 },
  keys: { flexDirection: 'row', gap: 8 },
});
