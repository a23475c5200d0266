import {
  HEIGHT,
  initialState,
  peakAt,
  peakPoint,
  place,
  WIDTH,
  type KilnbookState,
} from './kilnbook';

/** What the pointer looks like over a spot. */
export type PointerShape = 'arrow' | 'text' | 'hand';

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const box = (x: number, y: number, width: number, height: number): Box => ({ x, y, width, height });
const around = (center: { x: number; y: number }, width: number, height = 68): Box =>
  box(center.x - width / 2, center.y - height / 2, width, height);
const inside = (b: Box, x: number, y: number) =>
  x >= b.x && x < b.x + b.width && y >= b.y && y < b.y + b.height;

interface Target {
  readonly box: Box;
  readonly shape: PointerShape;
  readonly press: (state: KilnbookState) => void;
}

const VIEWS = ['week', 'firing', 'notes', 'members'] as const;
const KILN_NAMES = ['Large gas', 'Small electric', 'Test kiln'];
const LONGEST_NAME = 40;
const NOTES_TRAVEL = 1100;

/** What can be pressed now; what lies in front comes first. */
function targets(state: KilnbookState): Target[] {
  const cover = (press: (s: KilnbookState) => void): Target => ({
    box: box(0, 0, WIDTH, HEIGHT),
    shape: 'arrow',
    press,
  });
  const nothing = () => {};
  if (state.dialog)
    return [
      {
        box: around(place.confirm, 210),
        shape: 'hand',
        press: (s) => Object.assign(s, { dialog: false, booked: true, view: 'week' }),
      },
      {
        box: around({ x: place.confirm.x - 250, y: place.confirm.y }, 210),
        shape: 'hand',
        press: (s) => (s.dialog = false),
      },
      cover(nothing),
    ];
  if (state.form)
    return [
      ...formTargets(state),
      cover((s) => Object.assign(s.form!, { focus: null, listOpen: false })),
    ];
  const found: Target[] = [];
  if (state.menuOpen)
    for (let i = 0; i < 4; i++)
      found.push({
        box: box(598, 160 + i * 76, 404, 70),
        shape: 'hand',
        press: (s) => {
          s.menuOpen = false;
          if (i === 0) s.view = 'week';
          if (i === 1) s.form = { name: '', kiln: '', focus: null, listOpen: false };
          if (i === 2) s.view = 'firing';
        },
      });
  found.push({
    box: box(590, 76, 140, 64),
    shape: 'hand',
    press: (s) => (s.menuOpen = !s.menuOpen),
  });
  VIEWS.forEach((view, i) =>
    found.push({
      box: box(16, 238 + i * 80, 288, 64),
      shape: 'hand',
      press: (s) => (s.view = view),
    }),
  );
  if (state.view === 'firing') {
    found.push({
      box: box(650, 384, 230, 88),
      shape: 'text',
      press: (s) => Object.assign(s, { ramp: '', rampFocus: true }),
    });
    found.push({ box: around(place.book, 200), shape: 'hand', press: (s) => (s.dialog = true) });
    found.push({ box: around(peakPoint(state.peak), 60, 60), shape: 'hand', press: nothing });
  }
  if (state.view === 'notes')
    for (let i = 0; i < 14; i++)
      found.push({
        box: box(370, 310 + i * 150 - state.notesScroll, 1240, 130),
        shape: 'hand',
        press: (s) => (s.noteOpen = i === 4 && !s.noteOpen),
      });
  if (state.view === 'members')
    for (let row = 0; row < 7; row++)
      found.push({
        box: box(390, 360 + row * 92, 2100, 90),
        shape: 'hand',
        press: (s) =>
          (s.ticked = s.ticked.includes(row)
            ? s.ticked.filter((r) => r !== row)
            : [...s.ticked, row]),
      });
  return [
    ...found,
    cover((s) => {
      s.menuOpen = false;
      s.rampFocus = false;
    }),
  ];
}

function formTargets(state: KilnbookState): Target[] {
  const found: Target[] = [];
  if (state.form!.listOpen)
    KILN_NAMES.forEach((kiln, i) =>
      found.push({
        box: box(910, 714 + i * 78, 760, 78),
        shape: 'hand',
        press: (s) => Object.assign(s.form!, { kiln, listOpen: false }),
      }),
    );
  found.push({
    box: box(910, 496, 760, 72),
    shape: 'text',
    press: (s) => Object.assign(s.form!, { focus: 'name', listOpen: false }),
  });
  found.push({
    box: box(910, 636, 760, 72),
    shape: 'hand',
    press: (s) => Object.assign(s.form!, { focus: 'kiln', listOpen: !s.form!.listOpen }),
  });
  found.push({
    box: around(place.create, 190),
    shape: 'hand',
    press: (s) => {
      s.title = s.form!.name || 'New firing';
      s.form = null;
      s.view = 'firing';
    },
  });
  found.push({
    box: around({ x: place.create.x - 220, y: place.create.y }, 190),
    shape: 'hand',
    press: (s) => (s.form = null),
  });
  return found;
}

/** A Kilnbook that is really operated; places in its own pixels (2560 by 1440). */
export class Kilnbook {
  readonly state = initialState();
  private dragging = false;

  /** Goes to a place; answers what the pointer looks like there. */
  move(x: number, y: number): PointerShape {
    if (this.dragging) this.state.peak = Math.min(1380, Math.max(200, peakAt(y)));
    this.state.menuHover = this.state.menuOpen
      ? [0, 1, 2, 3].findIndex((i) => inside(box(598, 160 + i * 76, 404, 70), x, y))
      : -1;
    return this.at(x, y)?.shape ?? 'arrow';
  }

  press(x: number, y: number): void {
    const { state } = this;
    const peak = peakPoint(state.peak);
    this.dragging =
      state.view === 'firing' && !state.dialog && !state.form && inside(around(peak, 60, 60), x, y);
    this.at(x, y)?.press(state);
  }

  release(): void {
    this.dragging = false;
  }

  /** Scrolls by pixels, down positive. */
  wheel(dy: number): void {
    const { state } = this;
    if (state.view === 'notes' && !state.form && !state.dialog)
      state.notesScroll = Math.min(NOTES_TRAVEL, Math.max(0, state.notesScroll + dy));
  }

  /** A key, as the web platform names it. Answers whether it was of use. */
  key(name: string): boolean {
    const { state } = this;
    if (name === 'Escape' && (state.dialog || state.form || state.menuOpen)) {
      state.dialog = false;
      state.form = null;
      state.menuOpen = false;
      return true;
    }
    if (state.form?.focus === 'name') {
      const { form } = state;
      if (name === 'Backspace') form.name = form.name.slice(0, -1);
      else if (name === 'Enter' || name === 'Tab')
        Object.assign(form, { focus: 'kiln', listOpen: true });
      else if (name.length === 1 && form.name.length < LONGEST_NAME) form.name += name;
      else return false;
      return true;
    }
    if (state.rampFocus) {
      if (name === 'Backspace') state.ramp = state.ramp.slice(0, -1);
      else if (name === 'Enter' || name === 'Tab') state.rampFocus = false;
      else if (/^[0-9]$/.test(name) && state.ramp.length < 4) state.ramp += name;
      else return false;
      return true;
    }
    return false;
  }

  private at(x: number, y: number): Target | undefined {
    return targets(this.state).find((t) => inside(t.box, x, y));
  }
}
