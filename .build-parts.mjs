import { buildParts } from './scripts/build.mjs';
await buildParts();
