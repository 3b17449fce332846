/** How Debian's Chromium is started for tests, pictures and benchmarks: without a screen, without a word to the network. */
export const chromium = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: [
    ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
    ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
  ],
};

/** Lets sound begin without a touch. */
export const SOUND_AT_ONCE = '--autoplay-policy=no-user-gesture-required';

/** A microphone that beeps, and is allowed without being asked for. */
export const MICROPHONE = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'];
