import { benchExport } from './export';
import { benchKey } from './key';

/* Measures the picture engine: `bench [export] [key]`. */
const parts: Readonly<Record<string, () => Promise<void>>> = { key: benchKey, export: benchExport };
const asked = process.argv.slice(2);
for (const [name, part] of Object.entries(parts)) if (!asked.length || asked.includes(name)) await part();
