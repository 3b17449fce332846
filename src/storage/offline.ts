import { offlineChanged } from '@/store/sessionSlice';
import type { Store } from '@/store/store';

/** The browser's question whether to install, kept until the player asks for it. Chromium's; not in a standard yet. */
interface InstallPrompt extends Event {
  prompt: () => Promise<unknown>;
}

let installPrompt: InstallPrompt | null = null;
let waiting: ServiceWorker | null = null;

/**
 * Keeps the app on this device, so that it opens without a network, and tells the session when that is done, when a newer version
 * waits, and when the app can be installed. Nothing of it ever reloads the page by itself.
 * @param shown when the app is there: what is fetched to be kept must not come before what is to be seen
 */
export function keepOffline(store: Store, shown: Promise<void>): void {
  window.addEventListener('beforeinstallprompt', (event) => {
    event.preventDefault();
    installPrompt = event as InstallPrompt;
    store.dispatch(offlineChanged({ canInstall: true }));
  });
  window.addEventListener('appinstalled', () => store.dispatch(offlineChanged({ canInstall: false })));
  if ('serviceWorker' in navigator) void shown.then(() => register(store));
}

function register(store: Store): void {
  const { serviceWorker } = navigator;
  void serviceWorker.ready.then(() => store.dispatch(offlineChanged({ ready: true })));
  serviceWorker.register('/sw.js').then(
    (registration: ServiceWorkerRegistration | undefined) => {
      if (!registration) return; // where service workers are blocked
      const look = () => {
        // The first one of all does not wait for anything.
        if (!registration.waiting || !serviceWorker.controller) return;
        waiting = registration.waiting;
        store.dispatch(offlineChanged({ updateWaits: true }));
      };
      look();
      registration.addEventListener('updatefound', () =>
        registration.installing?.addEventListener('statechange', look),
      );
    },
    // Without it the app works as long as there is a network; a private window, for one, may have none.
    (error: unknown) => console.warn('No service worker:', error),
  );
}

/** Starts the newer version that waits. The page is loaded anew. */
export function takeUpdate(): void {
  navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload());
  waiting?.postMessage({ type: 'SKIP_WAITING' });
}

/** Shows the browser's question whether to install the app. */
export async function install(): Promise<void> {
  await installPrompt?.prompt();
}
