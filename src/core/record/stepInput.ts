import { mod } from '../time/ticks';

/** Entering hits one step at a time while the song stands still. */
export interface StepInput {
  /** Where the next hit is entered, ticks from the loop's start. */
  cursor: number;
  /** Pads held down now: what is pressed before all are let go belongs to one step. */
  held: number[];
}

export const STEP_INPUT_START: StepInput = { cursor: 0, held: [] };

/** A pad is pressed: its hit is entered at the cursor, which stays until every pad is let go. */
export function pressStep(state: StepInput, pad: number): StepInput {
  return { ...state, held: [...state.held.filter((p) => p !== pad), pad] };
}

/** A pad is let go: with the last one the cursor advances by the grid. */
export function releaseStep(state: StepInput, pad: number, grid: number, length: number): StepInput {
  if (!state.held.includes(pad)) return state;
  const held = state.held.filter((p) => p !== pad);
  return held.length > 0 ? { ...state, held } : { ...moveStep(state, 1, grid, length), held };
}

/** The cursor moves by whole steps of the grid, round the loop: a rest, or a way back. Between lines it goes to the next one. */
export function moveStep(state: StepInput, steps: number, grid: number, length: number): StepInput {
  const line = steps > 0 ? Math.floor(state.cursor / grid) : Math.ceil(state.cursor / grid);
  const count = Math.max(1, Math.ceil(length / grid));
  return { ...state, cursor: mod(line + steps, count) * grid };
}
