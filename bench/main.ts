import { benchCovers } from './covers';
import { benchCrisp } from './crisp';
import { benchExport, benchNoise } from './export';
import { benchFollow } from './follow';
import { benchFraming } from './framing';
import { benchGrowth } from './growth';
import { benchKey } from './key';
import { benchLayouts } from './layouts';
import { benchMatch } from './match';
import { benchMatte } from './matte';
import { benchPointer } from './pointer';
import { benchPrivate } from './private';
import { benchSharpness } from './sharpness';
import { benchWithheld } from './withheld';

/* Measures the picture engine and the planner: all of it, or the parts that are named. */
const parts: Readonly<Record<string, () => Promise<void> | void>> = {
  framing: benchFraming,
  withheld: benchWithheld,
  pointer: benchPointer,
  follow: benchFollow,
  covers: benchCovers,
  private: benchPrivate,
  sharpness: benchSharpness,
  crisp: benchCrisp,
  key: benchKey,
  layouts: benchLayouts,
  match: benchMatch,
  matte: benchMatte,
  growth: benchGrowth,
  export: benchExport,
  noise: benchNoise,
};
const asked = process.argv.slice(2);
for (const [name, part] of Object.entries(parts))
  if (!asked.length || asked.includes(name)) await part();
