import { readFileSync } from 'node:fs';
import { publishedSchemas } from './schemas';

test.each(Object.keys(publishedSchemas()))(
  '%s is what the code checks by (npm run schemas writes it)',
  (name) => {
    const published = JSON.parse(readFileSync(`docs/schemas/${name}`, 'utf8')) as unknown;
    expect(published).toEqual(publishedSchemas()[name]);
  },
);
