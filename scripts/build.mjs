import { build, install } from './shared.mjs';

install();
await build();
