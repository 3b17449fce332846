import { useRef, useState } from 'react';
import { View } from 'react-native';
import { useStore } from 'react-redux';
import { ticksPerBar } from '@/core/time/ticks';
import { selectPattern, selectSet } from '@/store/selectors';
import { useAppSelector, type Store } from '@/store/store';
import { useInstrument } from '../shared/InstrumentContext';
import { useFrame } from '../shared/useFrame';
import { LESS_MOTION, useMedia } from '../shared/useMedia';
import { useTokens } from '../theme/theme';
import { useRoom } from '../theme/room';
import { coming } from './coming';
import { drawFlyway } from './drawFlyway';

/** The strip that never leaves the screen: what was played, what is now, what is coming. `height` in px. */
export function Flyway({ height }: { height: number }) {
  const tokens = useTokens();
  const { performance } = useInstrument();
  // The rest of the set is read when a picture is drawn: what is recorded draws nothing of its own.
  const store = useStore() as Store;
  const meter = useAppSelector((state) => selectSet(state).meter);
  const loop = useAppSelector((state) => selectPattern(state).length);
  const playing = useAppSelector((state) => state.session.playing);
  // A loop window, and going back to the top, change the picture while stopped too.
  useAppSelector((state) => selectPattern(state).window);
  useAppSelector((state) => state.session.awayFromTop);
  const stands = useMedia(LESS_MOTION);
  const { type } = useRoom();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);

  const draw = (now: number) => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const scale = window.devicePixelRatio || 1;
    context.setTransform(scale, 0, 0, scale, 0, 0);
    const bar = ticksPerBar(meter);
    const tick = playing ? performance.tickHeard(now) : performance.anchor.tick;
    const going = loop > 0 ? performance.loopAt(tick) : undefined;
    drawFlyway(context, {
      width,
      height,
      now: tick,
      // Going on bar by bar, only the wing bars walk.
      origin: stands && playing ? Math.floor(tick / bar) * bar : tick,
      playing,
      meter,
      fromTick: performance.fromTick,
      loop: going?.length ?? 0,
      loopStart: going ? going.launchTick + going.start : 0,
      windowDrop: performance.coming?.tick ?? null,
      launches: playing ? coming(performance, selectSet(store.getState())) : [],
      sounded: performance.sounded.filter((hit) => hit.track === performance.shown),
      heardFrame: playing ? performance.frameHeardAt(now) : Infinity,
      type,
      tokens,
    });
  };
  useFrame(draw, playing);

  const scale = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  return (
    <View
      role="img"
      aria-label="Flyway"
      style={{ height, overflow: 'hidden' }}
      onLayout={(event) => setWidth(Math.round(event.nativeEvent.layout.width))}
    >
      <canvas
        ref={canvas}
        width={Math.round(width * scale)}
        height={Math.round(height * scale)}
        style={{ width, height, display: 'block' }}
      />
    </View>
  );
}
