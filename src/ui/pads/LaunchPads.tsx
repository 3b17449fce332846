import { StyleSheet } from 'react-native';
import { Text } from 'react-native-paper';
import { useStore } from 'react-redux';
import { cardState, pressLaunchPad, sectionState } from '@/instrument/launches';
import { selectSet, selectShown, selectTrack } from '@/store/selectors';
import type { PadsLaunch } from '@/store/sessionSlice';
import { useAppSelector, type Store } from '@/store/store';
import { inBeats, useBeatsLeft, useLaunch } from '../launch/useLaunch';
import { useInstrument } from '../shared/InstrumentContext';
import { useTokens } from '../theme/theme';
import { FEATHERS, INK, NUMBERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { PadBoard, padNameSize } from './PadBoard';

/** The pads as launchers: of the shown track's patterns, or of the sections. They answer on press. */
export function LaunchPads({ what }: { what: PadsLaunch }) {
  return <PadBoard label="Pads that launch">{(pad) => <LaunchPad pad={pad} what={what} />}</PadBoard>;
}

function LaunchPad({ pad, what }: { pad: number; what: PadsLaunch }) {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const trackId = useAppSelector(selectShown);
  const section = useAppSelector((state) => selectSet(state).sections[pad]?.id ?? 0);
  const [name, feather] = useAppSelector((state) => {
    const set = selectSet(state);
    const track = selectTrack(state);
    const pattern = track.patterns[pad];
    const section = set.sections[pad];
    if (what === 'sections') return section ? `${section.name}\n${section.colour}` : '\n0';
    return pattern ? `${pattern.name}\n${pattern.colour ?? track.colour}` : '\n0';
  }).split('\n') as [string, string];
  const [plays, comes, goes] = useLaunch((performance) => {
    const state = what === 'sections' ? { ...sectionState(performance, section), goes: Infinity } : cardState(performance, trackId, pad); // prettier-ignore
    return `${state.plays} ${state.comes} ${state.goes}`;
  }).split(' ');
  const beats = useBeatsLeft(Math.min(Number(comes), Number(goes)));
  const there = name !== '';
  const on = there && plays === 'true';
  const stops = on && Number(goes) < Infinity;
  const { colour } = FEATHERS[Number(feather)]!;
  const word = !there ? 'empty' : stops ? `stopping${inBeats(beats)}` : beats !== null ? `queued${inBeats(beats)}` : on ? 'playing' : 'not playing'; // prettier-ignore
  return (
    <div
      role="button"
      tabIndex={there ? 0 : -1}
      aria-label={there ? `Launch ${name}` : `No ${what === 'sections' ? 'section' : 'pattern'} ${pad + 1}`}
      aria-description={word}
      aria-disabled={!there}
      onPointerDown={(event) => {
        if (event.pointerType === 'mouse' && event.button !== 0) return;
        pressLaunchPad(store, instrument, what, pad);
      }}
      onKeyDown={(event) => {
        if (event.repeat || (event.key !== 'Enter' && event.key !== ' ')) return;
        event.preventDefault();
        pressLaunchPad(store, instrument, what, pad);
      }}
      style={{
        ...padBox,
        opacity: there ? 1 : 0.35,
        background: on && !stops ? colour : tokens.slate,
        border: `2px ${beats !== null && !stops ? 'dashed' : 'solid'} ${beats !== null && !stops ? tokens.straw : there ? colour : tokens.slate}`, // prettier-ignore
      }}
    >
      <Text style={[styles.number, { color: on && !stops ? INK : tokens.cap }]}>{pad + 1}</Text>
      {beats !== null && (
        <span aria-hidden style={{ ...count, background: tokens.straw, color: tokens.onStraw }}>
          {beats}
        </span>
      )}
      <Text numberOfLines={2} style={[styles.name, padNameSize(name), { color: on && !stops ? INK : tokens.wing }]}>
        {name}
      </Text>
    </div>
  );
}

const padBox = { position: 'relative', flex: 1, minWidth: 0, borderRadius: RADIUS, padding: 8, boxSizing: 'border-box', overflow: 'hidden', display: 'flex', flexDirection: 'column', justifyContent: 'space-between', touchAction: 'none', userSelect: 'none', cursor: 'pointer', outlineOffset: -3 } as const; // prettier-ignore
const count = { position: 'absolute', right: 6, top: 6, minWidth: grown(26), height: grown(26), borderRadius: 8, textAlign: 'center', fontFamily: NUMBERS, fontSize: grown(17), lineHeight: grown(26) } as const; // prettier-ignore

const styles = StyleSheet.create({
  number: { fontFamily: NUMBERS, fontSize: grown(12), lineHeight: grown(16) },
  name: { fontFamily: WORDS_STRONG },
});
