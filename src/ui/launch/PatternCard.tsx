import { memo, useRef } from 'react';
import { useStore } from 'react-redux';
import { targetKey } from '@/core/midi/target';
import type { Meter } from '@/core/time/ticks';
import { cardState, touchCard } from '@/instrument/launches';
import { useAppSelector, type Store } from '@/store/store';
import { HitsPicture } from '../shared/HitsPicture';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { useTap } from '../shared/useTap';
import { fitted } from '../theme/fitText';
import { useTokens } from '../theme/theme';
import { INK, NUMBERS, RADIUS, WORDS_STRONG } from '../theme/tokens';
import { grown } from '../theme/type';
import { inBeats, useBeatsLeft, useLaunch } from './useLaunch';
import { loopBars, type Pattern } from '@/core/document/pattern';

/** px, where type has its own size: cards grow with it. */
export const CARD = { width: 116, height: 94 } as const;
/** An empty slot takes less room. */
const EMPTY_WIDTH = 56;

interface Props {
  trackId: number;
  /** The track's place in the list. */
  place: number;
  trackName: string;
  slot: number;
  pattern: Pattern | null;
  /** Of the pattern, or else of its track. */
  colour: string;
  meter: Meter;
  /** It plays notes. */
  notes: boolean;
}

/**
 * A pattern as a card with a picture of its hits. What plays is filled and swept by wing bars, what waits has a dashed edge
 * and the beats that are left, what is to stop is an outline with its beats.
 */
export const PatternCard = memo(function PatternCard({
  trackId,
  place,
  trackName,
  slot,
  pattern,
  colour,
  meter,
  notes,
}: Props) {
  const tokens = useTokens();
  const store = useStore() as Store;
  const instrument = useInstrument();
  const [plays, comes, goes] = useLaunch((performance) => {
    const state = cardState(performance, trackId, slot);
    return `${state.plays} ${state.comes} ${state.goes}`;
  }).split(' ');
  const tap = useTap(() => touchCard(store, instrument, trackId, slot));
  const isOn = plays === 'true' && pattern !== null;
  const beats = useBeatsLeft(Math.min(Number(comes), Number(goes)));
  const stops = isOn && Number(goes) < Infinity;
  const waits = Number(comes) < Infinity;
  const filled = isOn && !stops;
  const ink = filled ? INK : tokens.wing;
  const name = pattern?.name ?? `empty ${slot + 1}`;
  const state = stops ? `stopping${inBeats(beats)}` : waits ? `queued${inBeats(beats)}` : isOn ? 'playing' : pattern ? 'not playing' : 'empty: a new pattern'; // prettier-ignore
  const bars = pattern ? Math.round(loopBars(pattern, meter) * 100) / 100 : 0;
  return (
    <div
      role="button"
      aria-label={`${trackName} ${name}`}
      aria-description={stops && waits ? `playing, again${inBeats(beats)}` : state}
      aria-pressed={isOn}
      tabIndex={slot === 0 ? 0 : -1}
      data-card={`${trackId} ${slot}`}
      data-map={targetKey({ do: 'card', row: place, slot })}
      {...tap}
      style={{
        ...box,
        width: grown(pattern ? CARD.width : EMPTY_WIDTH),
        background: filled ? colour : pattern ? tokens.slate : 'transparent',
        border: `2px ${waits ? 'dashed' : 'solid'} ${waits ? tokens.straw : stops ? colour : filled ? colour : pattern ? tokens.edge : tokens.rule}`, // prettier-ignore
      }}
    >
      {!pattern && (
        <span style={{ ...plus, color: tokens.cap }} aria-hidden>
          +
        </span>
      )}
      {pattern && (
        <>
          <div style={head}>
            <span
              style={{
                ...title,
                fontSize: fitted(name, CARD.width - 34, { least: 11, most: 16 }).fontSize,
                color: ink,
              }}
            >
              {name}
            </span>
            <span style={{ ...length, color: filled ? INK : tokens.cap }}>{bars}</span>
          </div>
          <div style={picture}>
            <HitsPicture pattern={pattern} colour={filled ? INK : colour} height={48} notes={notes} />
            {isOn && <Sweep trackId={trackId} length={pattern.length} colour={filled ? INK : tokens.wing} />}
          </div>
        </>
      )}
      {beats !== null && (
        <span style={{ ...count, color: tokens.onStraw, background: tokens.straw }} aria-hidden>
          {beats}
        </span>
      )}
    </div>
  );
});

/** The wing bars that go over the picture of what plays, drawn on the frame. */
function Sweep({ trackId, length, colour }: { trackId: number; length: number; colour: string }) {
  const { performance } = useInstrument();
  const playing = useAppSelector((state) => state.session.playing);
  // Going back to the top while stopped moves it too.
  useAppSelector((state) => state.session.awayFromTop);
  const bars = useRef<HTMLDivElement>(null);
  useFrame(() => {
    const share = performance.positionAt(performance.tickNow, trackId) / length;
    if (bars.current) bars.current.style.transform = `translateX(${100 * share}%)`;
  }, playing);
  return (
    <div ref={bars} style={sweep} aria-hidden>
      <div style={{ ...wing, background: colour }} />
      <div style={{ ...wing, background: colour }} />
    </div>
  );
}

const box = { position: 'relative', flex: 'none', width: grown(CARD.width), height: grown(CARD.height), boxSizing: 'border-box', borderRadius: RADIUS, padding: '5px 8px', overflow: 'hidden', cursor: 'pointer', userSelect: 'none', touchAction: 'pan-x pan-y', outlineOffset: -4 } as const; // prettier-ignore
const head = { display: 'flex', justifyContent: 'space-between', gap: 4, alignItems: 'baseline' } as const;
const picture = { position: 'relative', marginTop: 4 } as const;
/** As wide as the picture: it is moved by shares of itself. */
const sweep = { position: 'absolute', left: -3, right: 3, top: -3, bottom: -3, display: 'flex', gap: 3, willChange: 'transform', pointerEvents: 'none' } as const; // prettier-ignore
const wing = { width: 3, transform: 'skewX(-10deg)' } as const;
const plus = { display: 'block', textAlign: 'center', fontFamily: NUMBERS, fontSize: grown(18), lineHeight: grown(CARD.height - 14), opacity: 0.7 } as const; // prettier-ignore
const count = { position: 'absolute', right: 4, bottom: 4, minWidth: grown(26), height: grown(26), padding: '0 4px', boxSizing: 'border-box', borderRadius: 8, textAlign: 'center', fontFamily: NUMBERS, fontSize: grown(17), lineHeight: grown(26) } as const; // prettier-ignore
const title = { flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap', fontFamily: WORDS_STRONG, lineHeight: grown(20) } as const; // prettier-ignore
const length = { fontFamily: NUMBERS, fontSize: grown(11), lineHeight: grown(16) } as const;
