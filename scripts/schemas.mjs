// Writes the JSON Schemas of the file formats into docs/schemas, from the code's own.
import { writeFileSync } from 'node:fs';
import { build } from 'esbuild';
import { format } from 'oxfmt';

const { outputFiles } = await build({
  entryPoints: ['src/core/interchange/schemas.ts'],
  bundle: true,
  platform: 'node',
  format: 'esm',
  write: false,
});
const code = Buffer.from(outputFiles[0].contents).toString('base64');
const { publishedSchemas } = await import(`data:text/javascript;base64,${code}`);
for (const [name, schema] of Object.entries(publishedSchemas()))
  writeFileSync(
    `docs/schemas/${name}`,
    (await format(name, JSON.stringify(schema), { printWidth: 100 })).code,
  );
