import { channelLevelSet } from '@/store/mixSlice';
import { useAppDispatch } from '@/store/store';
import { SLIDER_STEPS } from '../shared/sliderKeys';
import { LEVEL_SCALE } from './mixScales';
import { useMixTurn } from './useMixTurn';

/**
 * A channel's level under a hand, which turns or rides it.
 * @param setting what it is set to, 0..1
 */
export function useLevel(channel: number, setting: number) {
  const dispatch = useAppDispatch();
  const hand = useMixTurn(channel, 'level', setting, (level) => dispatch(channelLevelSet({ channel, level })));
  const level = hand.value;
  const { number, unit } = LEVEL_SCALE.shown(level);
  const text = LEVEL_SCALE.text(number);
  const words = text === 'off' ? text : `${text} ${unit}`;
  const set = (next: number) => next !== level && hand.turn(next);
  const setOnce = (next: number) => {
    set(next);
    hand.letGo();
  };
  const step = (steps: number) => setOnce(LEVEL_SCALE.stepped(level, steps));
  return {
    /** How far along its strip it is, 0..1. */
    share: LEVEL_SCALE.share(level),
    /** In dB, as is shown. */
    unit,
    text,
    words,
    moves: hand.moves,
    /** A hand that stays on it takes it there; and lets go. */
    set,
    letGo: hand.letGo,
    setOnce,
    step,
    /** What makes an element its slider. */
    slider: {
      role: 'slider' as const,
      tabIndex: 0 as const,
      'aria-valuemin': LEVEL_SCALE.shown(0).number,
      'aria-valuemax': 0,
      'aria-valuenow': Math.round(number * 10) / 10,
      'aria-valuetext': words,
    },
    onKeyDown: (event: { key: string; preventDefault: () => void }) => {
      const steps = SLIDER_STEPS[event.key];
      if (steps !== undefined) step(steps);
      else if (event.key === 'Home') setOnce(0);
      else if (event.key === 'End') setOnce(1);
      else return;
      event.preventDefault();
    },
  };
}
