import { benchExport, benchNoise } from './export';
import { benchGrowth } from './growth';
import { benchKey } from './key';
import { benchSharpness } from './sharpness';

/* Measures the picture engine: all of it, or the parts that are named. */
const parts: Readonly<Record<string, () => Promise<void>>> = {
  sharpness: benchSharpness,
  key: benchKey,
  growth: benchGrowth,
  export: benchExport,
  noise: benchNoise,
};
const asked = process.argv.slice(2);
for (const [name, part] of Object.entries(parts))
  if (!asked.length || asked.includes(name)) await part();
