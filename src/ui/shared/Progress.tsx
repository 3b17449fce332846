import { ProgressBar } from 'react-native-paper';

interface Props {
  label: string;
  /** 0..1 */
  done: number;
}

/**
 * How far long work is. The bar stands where the work is: left to glide there, it would begin anew at every step and fall far behind, since steps
 * come faster than a glide takes.
 */
export function Progress({ label, done }: Props) {
  // Paper tells assistive technology nothing of it on the web.
  const value = { 'aria-valuemin': 0, 'aria-valuemax': 100, 'aria-valuenow': Math.round(done * 100) };
  return <ProgressBar aria-label={label} animatedValue={done} {...value} />;
}
