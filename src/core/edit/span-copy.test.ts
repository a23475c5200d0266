import { LAYOUTS } from '../layout/built-in';
import { counter, demoProject, frame, SOURCES } from './fixture';
import { copySpan, pasteSpan } from './span-copy';
import { setLayout } from './spans';

test('a layout that is pasted keeps its glide, and is the one that is told', () => {
  const newId = counter();
  const p = demoProject(newId);
  setLayout(p, { start: 0, end: frame(60) }, LAYOUTS.side, newId, { glide: frame(20) });
  const copied = copySpan(p, SOURCES, p.layouts[0]!.id)!;
  const { id } = pasteSpan(p, SOURCES, copied, frame(300), null, newId);
  expect(p.layouts.map((l) => [l.start, l.glide])).toEqual([
    [0, frame(20)],
    [frame(300), frame(20)],
  ]);
  expect(p.layouts[1]!.id).toBe(id);
});
