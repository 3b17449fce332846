import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { curvedVelocity, learntCurve, STRAIGHT, STROKES_TO_LEARN } from '@/core/midi/curve';
import type { Device } from '@/core/midi/device';
import { deviceSet } from '@/store/devicesSlice';
import { noticed } from '@/store/sessionSlice';
import { useAppDispatch } from '@/store/store';
import { ControlButton } from '../shared/ControlButton';
import { Strip } from '../shared/Strip';
import { Words } from '../shared/Words';
import { useTokens } from '../theme/theme';
import { RADIUS } from '../theme/tokens';
import { useStrokes } from './useStrokes';

const DOTS = 24;
const SIZE = 127;

/** How hard a device's strokes are meant: the curve, what was played on it as dots, and a curve learnt from ten strokes. */
export function VelocityPanel({ device }: { device: Device }) {
  const tokens = useTokens();
  const dispatch = useAppDispatch();
  const { name, velocity } = device;
  const [played, setPlayed] = useState<number[]>([]);
  // Strokes come faster than the panel is drawn.
  const learnt = useRef<number[] | null>(null);
  const [learning, setLearning] = useState<number | null>(null);
  const set = (curve: Device['velocity']) => dispatch(deviceSet({ name, change: { velocity: curve } }));
  const learn = (on: boolean) => {
    learnt.current = on ? [] : null;
    setLearning(on ? 0 : null);
  };
  useStrokes((stroke) => {
    if (stroke.device !== name) return;
    setPlayed((before) => [...before, stroke.velocity].slice(-DOTS));
    const strokes = learnt.current;
    if (!strokes) return;
    strokes.push(stroke.velocity);
    if (strokes.length < STROKES_TO_LEARN) return setLearning(strokes.length);
    learn(false);
    const curve = learntCurve(strokes);
    if (curve) set(curve);
    dispatch(
      noticed(
        curve
          ? `Learnt: ${Math.min(...strokes)} is soft and ${Math.max(...strokes)} hard.`
          : 'The ten strokes were all alike: play some as soft and some as hard as you do.',
      ),
    );
  });
  const path = Array.from({ length: 33 }, (_, i) => {
    const x = Math.max(1, (i / 32) * SIZE);
    return `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${(SIZE - curvedVelocity(velocity, x) * SIZE).toFixed(1)}`;
  }).join(' ');
  return (
    <View style={styles.panel}>
      <View style={styles.row}>
        <svg
          viewBox={`-3 -3 ${SIZE + 6} ${SIZE + 6}`}
          role="img"
          aria-label={`Velocity of ${name}: ${velocity.least} is the softest, ${velocity.most} the hardest`}
          style={{ width: 132, height: 132, flex: 'none', background: tokens.deep, borderRadius: RADIUS }}
        >
          <path d={path} fill="none" stroke={tokens.cap} strokeWidth={2} />
          {played.map((sent, i) => (
            <circle
              key={i}
              cx={sent}
              cy={SIZE - curvedVelocity(velocity, sent) * SIZE}
              r={i === played.length - 1 ? 4.5 : 3}
              fill={i === played.length - 1 ? tokens.breast : tokens.moss}
            />
          ))}
        </svg>
        <View style={styles.strips}>
          <Strip
            label="Softest"
            value={velocity.least}
            min={1}
            max={velocity.most - 1}
            step={1}
            scale={1}
            onChange={(least) => set({ ...velocity, least })}
          />
          <Strip
            label="Hardest"
            value={velocity.most}
            min={velocity.least + 1}
            max={127}
            step={1}
            scale={1}
            onChange={(most) => set({ ...velocity, most })}
          />
          <Strip
            label="Bend"
            value={velocity.bend}
            min={-1}
            max={1}
            step={0.05}
            onChange={(bend) => set({ ...velocity, bend })}
          />
        </View>
      </View>
      <View style={styles.row}>
        <ControlButton
          label={`Learn velocity of ${name}`}
          text={learning !== null ? `Play: ${learning} of ${STROKES_TO_LEARN}` : 'Learn from ten strokes'}
          pressed={learning !== null}
          onPress={() => learn(learning === null)}
          style={styles.grow}
        />
        <ControlButton
          label={`Straight velocity of ${name}`}
          text="Straight"
          disabled={velocity.bend === 0 && velocity.least === 1 && velocity.most === 127}
          onPress={() => set(STRAIGHT)}
          style={styles.grow}
        />
      </View>
      {learning !== null && <Words>Play ten strokes, some as soft and some as hard as you play.</Words>}
    </View>
  );
}

const styles = StyleSheet.create({
  panel: { gap: 6 },
  row: { flexDirection: 'row', gap: 6 },
  strips: { flex: 1, minWidth: 0, justifyContent: 'space-between', gap: 4 },
  grow: { flexGrow: 1, flexBasis: 0 },
});
