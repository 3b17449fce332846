import type { ComponentType } from 'react';
import type { SheetName } from '@/store/sessionSlice';
import { useAppSelector } from '@/store/store';
import { FeelSheet } from '../feel/FeelSheet';
import { KeepSheet } from '../keep/KeepSheet';
import { LatencySheet } from '../setup/LatencySheet';
import { SetupSheet } from '../setup/SetupSheet';
import { TakesSheet } from '../takes/TakesSheet';

const SHEETS: Record<SheetName, ComponentType> = {
  setup: SetupSheet,
  feel: FeelSheet,
  takes: TakesSheet,
  keep: KeepSheet,
  latency: LatencySheet,
};

/** The sheet that is open, if any. */
export function Sheets() {
  const name = useAppSelector((state) => state.session.sheet);
  if (!name) return null;
  const Open = SHEETS[name];
  return <Open />;
}
