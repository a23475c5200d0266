import { newId } from './ids';

test('an id never looks like an option of a command', () => {
  for (let i = 0; i < 2000; i++) expect(newId()).toMatch(/^[0-9A-Za-z]{21}$/);
});
