import { useFonts } from 'expo-font';
import { Slot } from 'expo-router';
import { useEffect, useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { Provider } from 'react-redux';
import { prepareInWorker } from '@/audio/samplePreparer';
import { Controllers } from '@/instrument/controllers/controllers';
import { Instrument } from '@/instrument/instrument';
import { keepOffline } from '@/storage/offline';
import { Library } from '@/storage/library';
import { restore } from '@/storage/persistence';
import { RunStore } from '@/storage/runStore';
import { StoredHistory } from '@/storage/storedHistory';
import { onStorageLost, samples, storage } from '@/storage/storage';
import { Tabs } from '@/storage/tabs';
import { saveTroubled } from '@/store/sessionSlice';
import { createStore, useAppSelector } from '@/store/store';
import { ControllersProvider } from '@/ui/devices/ControllersContext';
import { InstrumentProvider } from '@/ui/shared/InstrumentContext';
import { LibraryProvider } from '@/ui/sets/LibraryContext';
import { RunsProvider } from '@/ui/runs/RunsContext';
import { TabsProvider } from '@/ui/shell/OtherTab';
import { Shell } from '@/ui/shell/Shell';
import { useMedia } from '@/ui/shared/useMedia';
import { fontFiles } from '@/ui/theme/fonts';
import { AppIcon } from '@/ui/theme/icons';
import { paperTheme, TokensProvider } from '@/ui/theme/theme';
import { contrast, dark, light } from '@/ui/theme/tokens';

const store = createStore();
const instrument = new Instrument(store, undefined, async (id) => {
  const sample = await samples.load(id);
  return sample && prepareInWorker(sample);
});
const controllers = new Controllers(store, instrument);
const history = new StoredHistory(store, storage);
const library = new Library(store, storage);
const browser = { storage, locks: navigator.locks, channel: new BroadcastChannel('chaffinch') };
const tabs = new Tabs(store, browser, [library, history]);

const runs = new RunStore(storage, () => tabs.versions);
instrument.runs.onRun(runs.note);

/** A browser whose storage does not answer by then gets the demo, and the stored set when it comes. */
const ANSWERS_BY_MS = 4000;

/** Opens the stored set, and saves from then on. */
const restored = tabs.begin(() =>
  restore(store, storage, undefined, history).then((pieces) => {
    store.dispatch(saveTroubled(null));
    return pieces;
  }),
);
void restored.then(() => samples.sweep()).catch(() => undefined);
const silence = new Promise<void>((done) => {
  const timer = setTimeout(() => {
    store.dispatch(saveTroubled('The browser’s storage does not answer: what you make is not saved yet.'));
    done();
  }, ANSWERS_BY_MS);
  void restored.then(() => clearTimeout(timer));
});
/** The page is shown and the sound engine started with what there is. */
const opened = Promise.race([restored, silence]).then(() => {
  void instrument.start();
  // The browser remembers that it was allowed.
  if (store.getState().devices.wanted) void controllers.open();
});

keepOffline(store, opened);

/** Writes what is still to be written: the page may go away. */
function saveNow(): void {
  tabs.saveNow();
  void runs.writeNow();
}
window.addEventListener('pagehide', () => {
  saveNow();
  controllers.endOuts();
});
document.addEventListener('visibilitychange', () => {
  if (document.visibilityState === 'hidden') saveNow();
});
window.addEventListener('beforeunload', (event) => {
  if (tabs.isTroubled) event.preventDefault();
});
onStorageLost(() => {
  tabs.saveAgain();
  runs.writeAgain();
});

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
        <ControllersProvider value={controllers}>
          <TabsProvider value={tabs}>
            <RunsProvider value={runs}>
              <LibraryProvider value={library}>
                <Themed />
              </LibraryProvider>
            </RunsProvider>
          </TabsProvider>
        </ControllersProvider>
      </InstrumentProvider>
    </Provider>
  );
}

function Themed() {
  const choice = useAppSelector((state) => state.settings.theme);
  const system = useColorScheme();
  const wantsContrast = useMedia('(prefers-contrast: more)');
  const ofSystem = wantsContrast ? 'contrast' : system === 'light' ? 'light' : 'dark';
  const theme = choice === 'system' ? ofSystem : choice;
  // The browser's own parts, such as scroll bars, are of the same theme.
  useEffect(() => {
    document.documentElement.style.colorScheme = theme === 'light' ? 'light' : 'dark';
  }, [theme]);
  return (
    <PaperProvider theme={PAPER[theme]} settings={paperSettings}>
      <TokensProvider value={TOKENS[theme]}>
        <Shell>
          <Slot />
        </Shell>
      </TokensProvider>
    </PaperProvider>
  );
}

const paperSettings = { icon: AppIcon };
const TOKENS = { dark, light, contrast };
const PAPER = { dark: paperTheme(dark), light: paperTheme(light), contrast: paperTheme(contrast) };
