import type { Rect } from '../scale/rect';
import { PrivateLog } from './log';
import { hintOf, privateTexts, type PrivateText, type ReadWord } from './read-text';

const at = (x: number, y: number): Rect => ({ x, y, width: 120, height: 14 });
const text = (rect: Rect, said = 'ilse@kilnbook.example'): PrivateText => ({
  ...{ kind: 'email', text: said, rect, confidence: 0.9 },
});

test('a text that goes on standing there is one stretch, also when it is misread once', () => {
  const log = new PrivateLog();
  log.read(500, [text(at(10, 10))], () => 200);
  log.changed(1500, () => true, false);
  log.read(2000, [text(at(11, 10), 'i1se@kilnbook.examp1e')], () => 1500);
  const found = log.found(9000);
  expect(found).toHaveLength(1);
  expect(found[0]!.stretches).toEqual([{ from: 200, to: 9000, rect: at(10, 10) }]);
});

test('a text that is scrolled has a stretch for each place', () => {
  const log = new PrivateLog();
  log.read(500, [text(at(10, 300))], () => 0);
  log.changed(2000, ({ y }) => y > 200, true);
  log.read(3000, [text(at(10, 100), 'Ilse©kilnbook,example')], () => 2600);
  log.changed(5000, () => true, true);
  const [found] = log.found(9000);
  expect(found!.stretches).toEqual([
    { from: 0, to: 2000, rect: at(10, 300) },
    { from: 2600, to: 5000, rect: at(10, 100) },
  ]);
});

test('what comes back to its place after the page went is another stretch', () => {
  const log = new PrivateLog();
  log.read(500, [text(at(10, 300))], () => 0);
  log.changed(2000, () => true, true);
  log.read(4000, [text(at(10, 300))], () => 3600);
  expect(log.found(9000)[0]!.stretches.map(({ from, to }) => [from, to])).toEqual([
    [0, 2000],
    [3600, 9000],
  ]);
});

test('two addresses that differ by a digit are two things, also one after the other', () => {
  const log = new PrivateLog();
  log.read(500, [text(at(10, 300), 'ilse10@kilnbook.example')], () => 0);
  log.changed(2000, () => true, true);
  log.read(3000, [text(at(10, 100), 'ilse18@kilnbook.example')], () => 2600);
  expect(log.found(9000)).toHaveLength(2);
});

test('what stands at two places at once is there twice', () => {
  const log = new PrivateLog();
  log.read(500, [text(at(10, 300)), text(at(10, 100))], () => 0);
  expect(log.found(1000)).toHaveLength(2);
});

test('only a hint is told of what a text says', () => {
  const log = new PrivateLog();
  log.read(0, [text(at(0, 0))], () => 0);
  const told = JSON.stringify(log.found(100));
  expect(told).not.toContain('kilnbook');
  expect(hintOf('ilse@kilnbook.example')).toMatch(/^il•+le$/);
  expect(hintOf('glaze7')).toMatch(/^gl•+$/);
});

const words = (line: string, x = 0): ReadWord[] => {
  let left = x;
  return line.split(' ').map((said) => {
    const rect = { x: left, y: 50, width: said.length * 10, height: 14 };
    left += said.length * 10 + 8;
    return { text: said, rect, confidence: 0.8 };
  });
};

test('what is private has the place of its words, over several of them too', () => {
  const [card] = privateTexts(words('Card 4012 8888 8888 1881 ok'));
  expect(card).toMatchObject({ kind: 'card', rect: { x: 48, y: 50, width: 184, height: 14 } });
  const [mail] = privateTexts(words('mail:a.b@kiln.example'));
  expect(mail!.rect).toEqual({ x: 50, y: 50, width: 160, height: 14 });
});

test('columns of a table are not read together', () => {
  const row = [...words('1027'), ...words('555 0109', 200)];
  expect(privateTexts(row)).toEqual([]);
});
