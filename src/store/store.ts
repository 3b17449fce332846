import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { sessionReducer } from './sessionSlice';
import { setReducer } from './setSlice';
import { settingsReducer } from './settingsSlice';
import { stepsReducer } from './stepsSlice';

export function createStore() {
  return configureStore({
    reducer: { set: setReducer, settings: settingsReducer, session: sessionReducer, steps: stepsReducer },
    // Walking through every hit on every action would cost more than all else together.
    middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }),
    devTools: false,
  });
}

export type Store = ReturnType<typeof createStore>;
export type RootState = ReturnType<Store['getState']>;

export const useAppDispatch = useDispatch.withTypes<Store['dispatch']>();
export const useAppSelector = useSelector.withTypes<RootState>();
