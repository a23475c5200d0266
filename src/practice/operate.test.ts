import { place } from './kilnbook';
import { Kilnbook } from './operate';

const click = (book: Kilnbook, { x, y }: { x: number; y: number }) => {
  book.move(x, y);
  book.press(x, y);
  book.release();
};

test('a firing is made, programmed and booked by pointer and keys', () => {
  const book = new Kilnbook();
  click(book, place.menuFirings);
  expect(book.state.menuOpen).toBe(true);
  click(book, place.menuNew);
  click(book, place.nameField);
  for (const key of 'Cups') book.key(key);
  book.key('Enter');
  click(book, place.kilnOption);
  expect(book.state.form).toMatchObject({ name: 'Cups', kiln: 'Small electric' });
  click(book, place.create);
  expect(book.state).toMatchObject({ view: 'firing', title: 'Cups', form: null });
  click(book, place.rampCell);
  for (const key of ['1', 'x', '2', '0']) book.key(key);
  book.key('Enter');
  expect(book.state.ramp).toBe('120');
  click(book, place.book);
  click(book, { x: 40, y: 300 });
  expect(book.state.dialog).toBe(true);
  click(book, place.confirm);
  expect(book.state).toMatchObject({ dialog: false, booked: true, view: 'week' });
});

test('the pointer shows what it is over, and a drag moves the peak', () => {
  const book = new Kilnbook();
  expect(book.move(place.menuFirings.x, place.menuFirings.y)).toBe('hand');
  expect(book.move(1200, 1380)).toBe('arrow');
  click(book, place.navFirings);
  expect(book.move(place.rampCell.x - 100, place.rampCell.y)).toBe('text');
  const peak = { x: 1330 + 1120 * 0.62, y: 330 + 760 * (1 - 1060 / 1400) };
  book.press(peak.x, peak.y);
  book.move(peak.x, peak.y - 80);
  book.release();
  expect(book.state.peak).toBeGreaterThan(1180);
  const now = book.state.peak;
  book.move(peak.x, peak.y + 200);
  expect(book.state.peak).toBe(now);
});
