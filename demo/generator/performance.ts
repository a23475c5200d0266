import { Actor, type Performance } from './actor';
import {
  HEIGHT,
  WIDTH,
  peakAt,
  peakPoint,
  place,
  type KilnbookState,
} from '../../src/practice/kilnbook';

/**
 * Acts the tutorial out so that each step starts with its words. `starts` are milliseconds of
 * screen time.
 */
export function perform(starts: readonly number[], end: number): Performance<KilnbookState> {
  const actor = new Actor<KilnbookState>(WIDTH, HEIGHT, { x: 1410, y: 905 });
  const at = (index: number, plus = 0) => actor.until((starts[index] ?? end) + plus);
  const to = (p: { x: number; y: number }) => actor.moveTo(p.x, p.y);

  at(1, 1600);
  to(place.menuFirings).press((s) => (s.menuOpen = true));
  actor.wait(700);
  to(place.menuNew)
    .change((s) => (s.menuHover = 1))
    .wait(500)
    .press((s) => {
      s.menuOpen = false;
      s.form = { name: '', kiln: '', focus: null, listOpen: false };
    });

  at(2, 500);
  to(place.nameField)
    .shape('text')
    .press((s) => (s.form!.focus = 'name'))
    .type('Celadon bowls, cone 6', (s, k) => (s.form!.name += k));
  actor.wait(300);
  to(place.kilnField)
    .shape('arrow')
    .press((s) => Object.assign(s.form!, { focus: 'kiln', listOpen: true }));
  actor.wait(400);
  to(place.kilnOption).press((s) =>
    Object.assign(s.form!, { kiln: 'Small electric', listOpen: false }),
  );
  actor.wait(300);
  to(place.create).press((s) => {
    s.form = null;
    s.view = 'firing';
  });

  at(3, 900);
  to(place.rampCell)
    .shape('text')
    .press((s) => Object.assign(s, { ramp: '', rampFocus: true }))
    .type('120', (s, k) => (s.ramp += k));
  actor.wait(2100).change((s) => (s.rampFocus = false));
  const peak = peakPoint(1060);
  actor.shape('arrow').moveTo(peak.x, peak.y);
  actor
    .drag(peak.x, peakPoint(1222).y, (s, _x, y) => (s.peak = peakAt(y)))
    .change((s) => (s.peak = 1222));

  at(4, 200);
  to(place.navNotes).press((s) => (s.view = 'notes'));
  actor.moveTo(980, 760);
  actor.wheel(1020, 14, (s, dy) => (s.notesScroll += dy));
  actor.wait(500).wheel(-720, 11, (s, dy) => (s.notesScroll += dy));
  to(place.noteRow).press((s) => (s.noteOpen = true));

  at(5, 300);
  to(place.navMembers).press((s) => (s.view = 'members'));
  for (const row of [1, 3]) {
    to(place.memberTick(row)).press((s) => s.ticked.push(row));
    actor.wait(450);
  }

  at(6, 100);
  to(place.navFirings).press((s) => (s.view = 'firing'));
  to(place.book).press((s) => (s.dialog = true));
  actor.wait(500);
  to(place.confirm).press((s) => Object.assign(s, { dialog: false, booked: true, view: 'week' }));
  actor.moveTo(1400, 990);
  return actor.finish(end);
}
