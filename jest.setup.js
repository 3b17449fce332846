// vector-icons load their font asynchronously: without this every Paper icon logs "not wrapped in act(...)".
jest.mock('expo-font', () => ({
  ...jest.requireActual('expo-font'),
  isLoaded: () => true,
  loadAsync: () => Promise.resolve(),
}));
