import { useEffect, useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import type { Device } from '@/core/midi/device';
import { gridTarget } from '@/core/midi/layouts';
import { messageWords } from '@/core/midi/message';
import { targetWords } from '@/core/midi/target';
import type { Heard } from '@/instrument/controllers/monitor';
import { useAppSelector } from '@/store/store';
import { useTokens } from '../theme/theme';
import { NUMBERS, RADIUS } from '../theme/tokens';
import { grown } from '../theme/type';
import { useControllers } from './ControllersContext';

const LINES = 12;
/** How often it is written anew, ms: nobody reads faster. */
const EVERY_MS = 100;

/** What arrives from controllers, in words, the newest first. However much arrives, it is written ten times a second. */
export function MonitorLog() {
  const tokens = useTokens();
  const { monitor } = useControllers();
  const known = useAppSelector((state) => state.devices.known);
  const [shown, setShown] = useState({ count: -1, now: 0 });
  useEffect(() => {
    const look = () => {
      // While nothing comes, the last line still grows older for a while.
      setShown((before) => (before.count === monitor.count && monitor.count === 0 ? before : { count: monitor.count, now: performance.now() })); // prettier-ignore
    };
    const timer = setInterval(look, EVERY_MS);
    return () => clearInterval(timer);
  }, [monitor]);
  const lines = monitor.heard.slice(-LINES).reverse();
  return (
    <ScrollView
      role="log"
      aria-label="Monitor"
      tabIndex={0}
      style={[styles.log, { backgroundColor: tokens.deep, borderColor: tokens.rule }]}
    >
      {lines.length === 0 && <Text style={[styles.line, { color: tokens.cap }]}>Nothing yet: play something.</Text>}
      {lines.map((heard) => (
        <Text key={heard.id} style={[styles.line, { color: tokens.wing }]}>
          {heardWords(
            heard,
            known.find(({ name }) => name === heard.device),
          )}
          <Text style={{ color: tokens.cap }}>{`  ${heard.device}, ${agoWords(shown.now - heard.at)}`}</Text>
        </Text>
      ))}
    </ScrollView>
  );
}

/** "pad 3, velocity 96": notes of pads by what they are to the player, all else as it was sent. */
export function heardWords({ message }: Pick<Heard, 'message'>, device: Device | undefined): string {
  if (device && (message.type === 'noteOn' || message.type === 'noteOff')) {
    const target = gridTarget(device, message.note);
    const name =
      target?.do === 'pad'
        ? `pad ${target.pad! + 1}`
        : target && `${targetWords(target).toLowerCase()}, note ${message.note}`;
    if (name) return message.type === 'noteOn' ? `${name}, velocity ${message.velocity}` : `${name} let go`;
  }
  return messageWords(message);
}

function agoWords(ms: number): string {
  if (ms < 1000) return `${Math.max(0, Math.round(ms))} ms ago`;
  return ms < 60_000 ? `${Math.round(ms / 1000)} s ago` : 'a while ago';
}

const styles = StyleSheet.create({
  log: { height: 190, borderWidth: 1, borderRadius: RADIUS, paddingHorizontal: 8, paddingVertical: 4 },
  line: { fontFamily: NUMBERS, fontSize: grown(11), lineHeight: grown(18) },
});
