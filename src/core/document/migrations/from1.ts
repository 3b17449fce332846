import { isPlain, type Plain } from '../../plain';

/** 2: Feel, loudness and takes, which version 1 has not; and more to set on the metronome. */
export function from1(set: Plain): Plain {
  const metronome = isPlain(set.metronome)
    ? { sound: 'wood', when: 'always', between: null, ...set.metronome }
    : set.metronome;
  return { ...set, schema: 2, metronome };
}
