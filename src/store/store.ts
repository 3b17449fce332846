import { combineReducers, configureStore, type Reducer } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { devicesReducer } from './devicesSlice';
import { guideReducer } from './guideSlice';
import { sessionReducer } from './sessionSlice';
import { setReducer } from './setReducer';
import { shelfReducer } from './shelfSlice';
import { isTimeTravel } from './undoable';
import { settingsReducer } from './settingsSlice';
import { followed, stageReducer } from './stageSlice';
import { stepsReducer } from './stepsSlice';

const slices = combineReducers({
  set: setReducer,
  stage: stageReducer,
  settings: settingsReducer,
  devices: devicesReducer,
  shelf: shelfReducer,
  session: sessionReducer,
  steps: stepsReducer,
  guide: guideReducer,
});

/** What is being performed follows the document where it must. */
const reducer: Reducer<ReturnType<typeof slices>> = (state, action) => {
  const next = slices(state, action);
  if (!state || (state.set.present === next.set.present && state.stage === next.stage)) return next;
  const stage = followed(next.stage, state.set.present, next.set.present, isTimeTravel(action));
  return stage === next.stage ? next : { ...next, stage };
};

export function createStore() {
  return configureStore({
    reducer,
    // Walking through every hit on every action would cost more than all else together.
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }),
    devTools: false,
  });
}

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
