import { StyleSheet, View } from 'react-native';
import { marksIn } from '@/core/score/make';
import type { OpenedRun } from '@/instrument/openedRun';
import { Choice } from '../shared/Choice';
import { ControlButton } from '../shared/ControlButton';
import { PopMenu } from '../shared/PopMenu';
import { useRoom } from '../theme/room';
import { CarryKey } from '../carry/CarryKey';
import { LINES, lineName } from './scoreLines';
import type { ScoreView } from './scoreView';
import type { Carry } from '../carry/useCarry';
import { stretchWords, type RunDesk } from './useRunDesk';

interface Props {
  opened: OpenedRun;
  view: ScoreView;
  desk: RunDesk;
  carry: Carry;
}

/** What is done with a run: hear it, put it right, compare, and which line and stretch of it. */
export function RunKeys({ opened, view, desk, carry }: Props) {
  const { score } = opened;
  const lying = useRoom().layout === 'lying';
  const track = score.tracks[Math.min(desk.row, score.tracks.length - 1)]!;
  return (
    <View style={[styles.keys, lying && styles.row]}>
      <View style={[styles.row, lying && styles.most]}>
        <ControlButton
          label="Listen"
          text="Listen"
          icon={opened.isHeard ? 'stop' : 'play'}
          tone="primary"
          pressed={opened.isHeard}
          onPress={desk.listenOrStop}
          style={styles.key}
        />
        <ControlButton
          label="Fix"
          text="Fix"
          pressed={desk.fixing}
          disabled={opened.isAsPlayed}
          onPress={() => desk.set({ fixing: !desk.fixing, chosen: new Set() })}
          style={styles.key}
        />
        <ControlButton
          label="As played"
          text="As played"
          pressed={opened.isAsPlayed}
          disabled={!opened.canUndo}
          onPress={() => {
            desk.set({ fixing: false, chosen: new Set() });
            opened.showAsPlayed(!opened.isAsPlayed);
          }}
          style={styles.key}
        />
        <CarryKey carry={carry} />
      </View>
      <View style={[styles.row, lying && styles.rest]}>
        <Choice
          label="Line"
          caption="Line"
          value={desk.line}
          options={LINES.map((line) => ({ value: line, name: lineName(line, track) }))}
          onChoose={(line) => desk.set({ line })}
          grow
        />
        <StretchChoice opened={opened} view={view} desk={desk} />
      </View>
    </View>
  );
}

function StretchChoice({ opened, view, desk }: Omit<Props, 'carry'>) {
  const { score } = opened;
  const take = (from: number, to: number) => {
    desk.set({ stretch: { from, to } });
    desk.jump(from);
    view.reveal(from);
  };
  const sections = marksIn(score, { from: 0, to: score.length }).map((mark, i, all) => {
    const stretch = { from: mark.tick, to: all[i + 1]?.tick ?? score.length };
    return { title: `${mark.name}, ${stretchWords(stretch, score)}`, act: () => take(stretch.from, stretch.to) };
  });
  return (
    <PopMenu
      label="Stretch"
      caption={desk.loops ? 'Stretch, goes round' : 'Stretch'}
      text={desk.stretch ? stretchWords(desk.stretch, score) : 'All of it'}
      grow
      items={() => [
        { title: 'All of it', chosen: desk.stretch === null, act: () => desk.set({ stretch: null, loops: false }) },
        { title: 'What is seen', act: () => take(view.from, view.to) },
        { title: 'It goes round', chosen: desk.loops, act: () => desk.set({ loops: !desk.loops }) },
        ...sections.map((item, i) => ({ ...item, ruled: i === 0 })),
      ]}
    />
  );
}

const styles = StyleSheet.create({
  keys: { gap: 4 },
  row: { flexDirection: 'row', gap: 4 },
  key: { flexGrow: 1, paddingHorizontal: 4 },
  /** Side by side where the screen is low. */
  most: { flexGrow: 3, flexBasis: 0 },
  rest: { flexGrow: 2, flexBasis: 0 },
});
