import { build, install } from './shared.mjs';

await install();
await build();
