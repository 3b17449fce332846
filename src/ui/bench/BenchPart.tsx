import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import type { BenchDevice } from '@/midi/bench/benchDevice';
import { FAULT_NAMES, FAULTS } from '@/midi/bench/misbehaviour';
import { ControlButton } from '../shared/ControlButton';
import { PopMenu } from '../shared/PopMenu';
import { useTokens } from '../theme/theme';
import { RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { useBenchDevice } from './useBenchDevice';

/** One stand-in: its name, its plug, what it does wrong, and what it is played with. */
export function BenchPart({ device, children }: { device: BenchDevice; children: ReactNode }) {
  const tokens = useTokens();
  const isPlugged = useBenchDevice(device, () => device.isPlugged);
  const [faults, setFaults] = useState([...device.misbehaviour.on]);
  const toggle = (fault: (typeof FAULT_NAMES)[number]) => {
    device.setFault(fault, !faults.includes(fault));
    setFaults([...device.misbehaviour.on]);
  };
  const { name } = device;
  return (
    <View
      role="region"
      aria-label={name}
      style={[styles.part, { borderColor: tokens.rule, backgroundColor: tokens.slate }]}
    >
      <View style={styles.head}>
        <Text role="heading" aria-level={3} style={[styles.name, { color: tokens.wing }]}>
          {name}
        </Text>
        {device.isSending && (
          <PopMenu
            label={`Faults of ${name}`}
            text={faults.length === 0 ? 'Well behaved' : `${faults.length} wrong`}
            description={faults.map((fault) => FAULTS[fault]).join(', ') || 'none'}
            items={FAULT_NAMES.map((fault) => ({
              title: FAULTS[fault],
              chosen: faults.includes(fault),
              act: () => toggle(fault),
            }))}
          />
        )}
        <ControlButton
          label={`${isPlugged ? 'Unplug' : 'Plug in'} ${name}`}
          text={isPlugged ? 'Unplug' : 'Plug in'}
          pressed={isPlugged}
          onPress={() => (isPlugged ? device.unplug() : device.plug())}
        />
      </View>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  part: { borderWidth: 1, borderRadius: RADIUS, padding: 3, gap: 8, flexGrow: 1, flexBasis: 340, minWidth: 0 },
  head: { paddingLeft: 5, flexDirection: 'row', alignItems: 'center', gap: 6, flexWrap: 'wrap' },
  name: { fontFamily: WORDS_STRONG, fontSize: grown(18), lineHeight: grown(24), flex: 1, minWidth: 120 },
});
