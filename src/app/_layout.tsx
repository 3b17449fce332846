import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { Provider } from 'react-redux';
import type { OpenSet } from '@/core/document/set';
import { Instrument } from '@/instrument/instrument';
import { autosave, restore, whenAlone } from '@/storage/persistence';
import { createStore, useAppSelector } from '@/store/store';
import { InstrumentProvider } from '@/ui/shared/InstrumentContext';
import { Shell } from '@/ui/shell/Shell';
import { fontFiles } from '@/ui/theme/fonts';
import { paperTheme, TokensProvider } from '@/ui/theme/theme';
import { dark, light } from '@/ui/theme/tokens';

const store = createStore();
const instrument = new Instrument(store);
const storage = createAsyncStorage('chaffinch');

/** Opens the stored set; then starts the sound engine with it and saves from then on. */
const opened = restore(store, storage).then((safeToSave) => {
  void instrument.start();
  if (safeToSave) void whenAlone(store, storage, navigator.locks, save);
});

function save(saved: OpenSet): void {
  const saveNow = autosave(store, storage, saved);
  window.addEventListener('pagehide', saveNow);
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') saveNow();
  });
}

export default function Layout() {
  const [fontsReady, fontsFailed] = useFonts(fontFiles);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    void opened.then(() => setReady(true));
  }, []);
  if (!ready || (!fontsReady && !fontsFailed)) return null;
  return (
    <Provider store={store}>
      <InstrumentProvider value={instrument}>
        <Themed />
      </InstrumentProvider>
    </Provider>
  );
}

function Themed() {
  const choice = useAppSelector((state) => state.settings.theme);
  const system = useColorScheme();
  const isDark = choice === 'dark' || (choice === 'system' && system !== 'light');
  // The browser's own parts, such as scroll bars, are of the same theme.
  useEffect(() => {
    document.documentElement.style.colorScheme = isDark ? 'dark' : 'light';
  }, [isDark]);
  return (
    <PaperProvider theme={isDark ? darkPaper : lightPaper}>
      <TokensProvider value={isDark ? dark : light}>
        <Shell>
          <Slot />
        </Shell>
      </TokensProvider>
    </PaperProvider>
  );
}

const darkPaper = paperTheme(true);
const lightPaper = paperTheme(false);
