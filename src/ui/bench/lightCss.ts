import { TONE_RGB } from '@/core/midi/lights';

/** The colour that a velocity lights a stand-in's pad in (see `BENCH_SCHEME`): dim and bright of each tone one after the other. */
export function lightCss(velocity: number, dark: string): string {
  const rgb = TONE_RGB[(velocity - 1) >> 1];
  if (velocity === 0 || !rgb) return dark;
  const alpha = velocity % 2 === 0 ? 1 : 0.4;
  return `rgba(${rgb.join(', ')}, ${alpha})`;
}
