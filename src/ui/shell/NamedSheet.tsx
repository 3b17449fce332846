import { createElement, type ComponentType } from 'react';
import type { SheetName } from '@/store/sessionSlice';
import { CarrySheet } from '../carry/CarrySheet';
import { DevicesSheet } from '../devices/DevicesSheet';
import { MapSheet } from '../devices/MapSheet';
import { FeelSheet } from '../feel/FeelSheet';
import { GenerateSheet } from '../generate/GenerateSheet';
import { IncomingSheet } from '../incoming/IncomingSheet';
import { KeepSheet } from '../keep/KeepSheet';
import { LaunchingSheet } from '../launch/LaunchingSheet';
import { SectionsSheet } from '../launch/SectionsSheet';
import { TrackSheet } from '../launch/TrackSheet';
import { MovesSheet } from '../moves/MovesSheet';
import { KeysSheet } from '../setup/KeysSheet';
import { LatencySheet } from '../setup/LatencySheet';
import { SetupSheet } from '../setup/SetupSheet';
import { SimpleSheet } from '../simple/SimpleSheet';
import { SlotsSheet } from '../slots/SlotsSheet';
import { EditSheet } from '../steps/sheets/EditSheet';
import { LengthSheet } from '../steps/sheets/LengthSheet';
import { StepSheet } from '../steps/sheets/StepSheet';
import { TakesSheet } from '../takes/TakesSheet';

const SHEETS: Record<SheetName, ComponentType> = {
  setup: SetupSheet,
  keys: KeysSheet,
  latency: LatencySheet,
  feel: FeelSheet,
  takes: TakesSheet,
  keep: KeepSheet,
  edit: EditSheet,
  step: StepSheet,
  length: LengthSheet,
  slots: SlotsSheet,
  generate: GenerateSheet,
  moves: MovesSheet,
  launching: LaunchingSheet,
  track: TrackSheet,
  sections: SectionsSheet,
  simple: SimpleSheet,
  incoming: IncomingSheet,
  carry: CarrySheet,
  devices: DevicesSheet,
  map: MapSheet,
};

/** The sheet of a name. */
export default function NamedSheet({ name }: { name: SheetName }) {
  return createElement(SHEETS[name]);
}
