// npm run dev: the app with fast refresh; workers are bundled again as they change.
import { bin, install } from './shared.mjs';

await install();
const { watchWorkers } = await import('./bundle.mjs');
await watchWorkers();
const { spawn } = await import('node:child_process');
const expo = spawn(bin('expo'), ['start', '--web', '--port', process.env.PORT ?? '4173'], {
  stdio: 'inherit',
  env: { ...process.env, EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1' },
});
expo.on('exit', (code) => process.exit(code ?? 1));
