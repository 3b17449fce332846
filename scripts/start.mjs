// npm start: installs what is missing, builds, and serves the app.
import { build, inRoot, install } from './shared.mjs';

await install();
await build();
const { serve } = await import(inRoot('build/server.mjs'));
serve();
