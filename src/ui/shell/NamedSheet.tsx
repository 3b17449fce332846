import { createElement, type ComponentType } from 'react';
import type { SheetName } from '@/store/sessionSlice';
import { FeelSheet } from '../feel/FeelSheet';
import { KeepSheet } from '../keep/KeepSheet';
import { LaunchingSheet } from '../launch/LaunchingSheet';
import { MovesSheet } from '../moves/MovesSheet';
import { SlotsSheet } from '../slots/SlotsSheet';
import { lazyPlace } from '../shared/lazyPlace';
import { SOUND_SHEETS } from '../sounds/SoundsScreen';
import { EditSheet } from '../steps/sheets/EditSheet';
import { LengthSheet } from '../steps/sheets/LengthSheet';
import { StepSheet } from '../steps/sheets/StepSheet';
import { TakesSheet } from '../takes/TakesSheet';

const loadPartSheets = () => import('../carry/partSheets');

/** What is opened between playing comes when it is wanted; the service worker has it all the same. */
const LATER = {
  setup: lazyPlace(() => import('../setup/SetupSheet')),
  keys: lazyPlace(() => import('../setup/KeysSheet')),
  latency: lazyPlace(() => import('../setup/LatencySheet')),
  generate: lazyPlace(() => import('../generate/GenerateSheet')),
  incoming: lazyPlace(async () => ({ default: (await loadPartSheets()).IncomingSheet })),
  carry: lazyPlace(async () => ({ default: (await loadPartSheets()).CarrySheet })),
  devices: lazyPlace(() => import('../devices/DevicesSheet')),
  map: lazyPlace(() => import('../devices/MapSheet')),
  sections: lazyPlace(() => import('../launch/SectionsSheet')),
  track: lazyPlace(() => import('../launch/TrackSheet')),
  simple: lazyPlace(() => import('../simple/SimpleSheet')),
  ...SOUND_SHEETS,
};

const SHEETS: Record<SheetName, ComponentType> = {
  ...LATER,
  feel: FeelSheet,
  takes: TakesSheet,
  keep: KeepSheet,
  edit: EditSheet,
  step: StepSheet,
  length: LengthSheet,
  slots: SlotsSheet,
  moves: MovesSheet,
  launching: LaunchingSheet,
};

/** The sheet of a name. */
export default function NamedSheet({ name }: { name: SheetName }) {
  return createElement(SHEETS[name]);
}
