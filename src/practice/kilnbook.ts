import type { Brush } from './brush';

export interface KilnbookForm {
  name: string;
  kiln: string;
  focus: 'name' | 'kiln' | null;
  listOpen: boolean;
}

/**
 * Kilnbook, the made-up web tool of the demo, as a picture that depends on nothing but its state.
 */
export interface KilnbookState {
  view: 'week' | 'firing' | 'notes' | 'members';
  menuOpen: boolean;
  menuHover: number;
  form: KilnbookForm | null;
  ramp: string;
  rampFocus: boolean;
  peak: number;
  notesScroll: number;
  noteOpen: boolean;
  ticked: number[];
  dialog: boolean;
  booked: boolean;
  /** Name of the firing that is open. */
  title: string;
}

export const initialState = (): KilnbookState => ({
  view: 'week',
  menuOpen: false,
  menuHover: -1,
  form: null,
  ramp: '60',
  rampFocus: false,
  peak: 1060,
  notesScroll: 0,
  noteOpen: false,
  ticked: [],
  dialog: false,
  booked: false,
  title: 'Celadon bowls, cone 6',
});

export const WIDTH = 2560;
export const HEIGHT = 1440;

const color = {
  page: '#EEF1F0',
  panel: '#FFFFFF',
  ink: '#22303A',
  soft: '#61707A',
  line: '#D3DAD8',
  accent: '#2B6F8A',
  clay: '#B0583A',
  pale: '#E3EEF2',
};

/** Where things stand that the actor aims at. */
export const place = {
  menuFirings: { x: 655, y: 112 },
  menuNew: { x: 730, y: 270 },
  nameField: { x: 1180, y: 520 },
  kilnField: { x: 1180, y: 660 },
  kilnOption: { x: 1150, y: 830 },
  create: { x: 1575, y: 985 },
  rampCell: { x: 860, y: 428 },
  navNotes: { x: 150, y: 430 },
  navMembers: { x: 150, y: 510 },
  navFirings: { x: 150, y: 350 },
  noteRow: { x: 900, y: 620 },
  memberTick: (row: number) => ({ x: 452, y: 404 + row * 92 }),
  book: { x: 2330, y: 232 },
  confirm: { x: 1500, y: 850 },
} as const;

const chart = { x: 1330, y: 330, width: 1120, height: 760 };

export const peakPoint = (peak: number) => ({
  x: chart.x + chart.width * 0.62,
  y: chart.y + chart.height * (1 - peak / 1400),
});
export const peakAt = (y: number) =>
  Math.round(((1 - (y - chart.y) / chart.height) * 1400) / 2) * 2;

function text(
  c: Brush,
  value: string,
  x: number,
  y: number,
  { size = 28, weight = 400, fill = color.ink, align = 'left' as CanvasTextAlign } = {},
) {
  c.font = `${weight} ${size}px Kilnbook`;
  c.fillStyle = fill;
  c.textAlign = align;
  c.textBaseline = 'alphabetic';
  c.fillText(value, x, y);
}

function box(
  c: Brush,
  x: number,
  y: number,
  w: number,
  h: number,
  fill: string,
  stroke?: string,
  r = 8,
) {
  c.beginPath();
  c.roundRect(x, y, w, h, r);
  c.fillStyle = fill;
  c.fill();
  if (stroke) {
    c.strokeStyle = stroke;
    c.lineWidth = 2;
    c.stroke();
  }
}

function button(c: Brush, label: string, cx: number, cy: number, w: number, primary = true) {
  box(c, cx - w / 2, cy - 34, w, 68, primary ? color.accent : color.panel, color.accent);
  text(c, label, cx, cy + 10, {
    weight: 600,
    fill: primary ? '#FFFFFF' : color.accent,
    align: 'center',
  });
}

const NAV = ['Week', 'Firings', 'Glaze notes', 'Members'];
export const KILNS = ['Large gas', 'Small electric', 'Test kiln'];
const DAYS = ['Mon 2', 'Tue 3', 'Wed 4', 'Thu 5', 'Fri 6', 'Sat 7', 'Sun 8'];

function week(c: Brush, s: KilnbookState) {
  text(c, 'Week 23, Saltmarsh Clay', 370, 250, { size: 44, weight: 600 });
  const left = 370;
  const column = 300;
  DAYS.forEach((day, i) => {
    text(c, day, left + i * column + 20, 330, { weight: 600, fill: color.soft });
  });
  KILNS.forEach((kiln, row) => {
    const y = 360 + row * 330;
    DAYS.forEach((_, i) => box(c, left + i * column, y, column - 12, 312, color.panel, color.line));
    text(c, kiln, left + 20, y + 44, { size: 24, fill: color.soft });
  });
  const booking = (day: number, row: number, title: string, who: string, fill: string) => {
    const x = left + day * column + 14;
    const y = 360 + row * 330 + 80;
    box(c, x, y, column - 40, 130, fill, undefined, 6);
    text(c, title, x + 18, y + 50, { size: 25, weight: 600, fill: '#FFFFFF' });
    text(c, who, x + 18, y + 92, { size: 23, fill: '#FFFFFF' });
  };
  booking(1, 0, 'Stoneware 9', 'Tomas Brell', color.clay);
  booking(4, 0, 'Reduction test', 'Oona Feld', '#7A6A2C');
  booking(0, 1, 'Bisque 04', 'Class B', '#5D7A55');
  booking(3, 2, 'Tile tests', 'Ilse Varga', color.accent);
  if (s.booked) booking(3, 1, s.title, 'Ilse Varga', color.accent);
}

function firing(c: Brush, s: KilnbookState) {
  text(c, s.title, 370, 250, { size: 44, weight: 600 });
  button(c, 'Book', place.book.x, place.book.y, 200);
  box(c, 370, 300, 900, 560, color.panel, color.line);
  ['Segment', 'Ramp °C/h', 'Target °C', 'Soak min'].forEach((head, i) =>
    text(c, head, 400 + i * 225 + (i ? 50 : 0), 352, { size: 25, weight: 600, fill: color.soft }),
  );
  const rows = [
    ['1 Dry', s.ramp, '600', '0'],
    ['2 Climb', '150', String(s.peak - 100), '0'],
    ['3 Peak', '60', String(s.peak), '15'],
    ['4 Cool', '-90', '980', '30'],
    ['5 Rest', 'off', '60', ''],
  ];
  rows.forEach((row, r) => {
    const y = 380 + r * 92;
    c.fillStyle = color.line;
    c.fillRect(390, y, 860, 2);
    row.forEach((cell, i) => {
      if (i === 1 && r === 0) {
        box(
          c,
          660,
          y + 14,
          180,
          66,
          s.rampFocus ? '#FFFFFF' : color.page,
          s.rampFocus ? color.accent : color.line,
        );
        text(c, cell + (s.rampFocus ? '|' : ''), 680, y + 57, { size: 30 });
      } else text(c, cell, 400 + i * 225 + (i ? 50 : 0), y + 57, { size: 30 });
    });
  });
  box(c, chart.x - 40, 300, chart.width + 80, 900, color.panel, color.line);
  for (let temperature = 0; temperature <= 1400; temperature += 200) {
    const y = chart.y + chart.height * (1 - temperature / 1400);
    c.fillStyle = color.line;
    c.fillRect(chart.x + 70, y, chart.width - 70, 1);
    text(c, `${temperature}`, chart.x + 56, y + 8, { size: 22, fill: color.soft, align: 'right' });
  }
  const peak = peakPoint(s.peak);
  const rampEnd = chart.x + 70 + Math.max(60, 420 - (Number(s.ramp) || 10) * 1.6);
  const low = chart.y + chart.height;
  c.beginPath();
  c.moveTo(chart.x + 70, low);
  c.lineTo(rampEnd, chart.y + chart.height * (1 - 600 / 1400));
  c.lineTo(peak.x - 90, peak.y + 60);
  c.lineTo(peak.x, peak.y);
  c.lineTo(peak.x + 60, peak.y);
  c.lineTo(peak.x + 190, chart.y + chart.height * (1 - 980 / 1400));
  c.lineTo(chart.x + chart.width - 10, low - 30);
  c.strokeStyle = color.clay;
  c.lineWidth = 6;
  c.stroke();
  c.beginPath();
  c.arc(peak.x, peak.y, 15, 0, Math.PI * 2);
  c.fillStyle = color.clay;
  c.fill();
  text(c, `${s.peak} °C`, peak.x + 6, peak.y - 34, {
    size: 32,
    weight: 600,
    fill: color.clay,
    align: 'center',
  });
  text(c, '0 h', chart.x + 70, low + 44, { size: 22, fill: color.soft });
  text(c, '14 h', chart.x + chart.width - 50, low + 44, { size: 22, fill: color.soft });
  box(c, chart.x - 40, 1224, chart.width + 80, 176, color.panel, color.line);
  const facts = [
    ['Energy', 'about 42 kWh'],
    ['Ready to unload', 'Friday, 9:00'],
  ] as const;
  facts.forEach(([what, value], row) => {
    const y = 1296 + row * 64;
    text(c, what, chart.x, y, { size: 28, fill: color.soft });
    text(c, value, chart.x + chart.width, y, { size: 30, weight: 600, align: 'right' });
  });
}

const NOTES = [
  'Iron saturate: thin on rims, two dips',
  'Shino: three days drying before the firing',
  'Tenmoku: keep off the lowest shelf',
  'Ash glaze: runs, use a cookie',
  'Celadon: slow first ramp, 15 min soak at the peak',
  'Chun blue: pools, good on carved ware',
  'Copper red: gas kiln only',
  'Matt white: cool slowly to 980 °C',
  'Satin black: wipe the foot twice',
  'Clear liner: sieve at 100 mesh',
  'Rutile: stir often',
  'Oatmeal: one dip, count to three',
  'Wood ash 2: test tile first',
  'Barium free blue: not for food',
];

function notes(c: Brush, s: KilnbookState) {
  c.save();
  c.beginPath();
  c.rect(360, 290, 2160, 1110);
  c.clip();
  NOTES.forEach((note, i) => {
    const y = 310 + i * 150 - s.notesScroll;
    box(c, 370, y, 1240, 130, s.noteOpen && i === 4 ? color.pale : color.panel, color.line);
    text(c, note, 410, y + 76, { size: 30 });
  });
  if (s.noteOpen) {
    box(c, 1660, 310, 840, 560, color.panel, color.accent);
    text(c, 'Celadon', 1700, 380, { size: 38, weight: 600 });
    [
      'First ramp 120 °C an hour to 600 °C,',
      'so that the bowls dry without cracks.',
      'Peak 1222 °C, soak 15 minutes.',
      'Cool freely. Open below 60 °C.',
    ].forEach((line, i) => text(c, line, 1700, 450 + i * 56, { size: 30 }));
  }
  c.restore();
  text(c, 'Glaze notes', 370, 250, { size: 44, weight: 600 });
}

const MEMBERS = [
  ['Tomas Brell', 'tomas@saltmarsh-clay.example', '0555 010 117'],
  ['Oona Feld', 'oona.feld@saltmarsh-clay.example', '0555 010 164'],
  ['Ilse Varga', 'ilse@saltmarsh-clay.example', '0555 010 121'],
  ['Piet Anders', 'p.anders@saltmarsh-clay.example', '0555 010 183'],
  ['Ruta Milne', 'ruta@saltmarsh-clay.example', '0555 010 139'],
  ['Class B', 'class-b@saltmarsh-clay.example', '0555 010 102'],
  ['Hanno Quill', 'hanno.q@saltmarsh-clay.example', '0555 010 176'],
];

function members(c: Brush, s: KilnbookState) {
  text(c, 'Members who share a kiln', 370, 250, { size: 44, weight: 600 });
  box(c, 370, 290, 2140, 770, color.panel, color.line);
  ['', 'Name', 'E-mail', 'Phone', 'Kiln'].forEach((head, i) =>
    text(c, head, [400, 530, 960, 1680, 2080][i]!, 340, {
      size: 25,
      weight: 600,
      fill: color.soft,
    }),
  );
  MEMBERS.forEach((member, row) => {
    const y = 358 + row * 92;
    c.fillStyle = color.line;
    c.fillRect(390, y, 2100, 2);
    const on = s.ticked.includes(row);
    box(c, 432, y + 26, 40, 40, on ? color.accent : color.panel, color.soft, 4);
    if (on) {
      c.beginPath();
      c.moveTo(441, y + 46);
      c.lineTo(450, y + 56);
      c.lineTo(464, y + 36);
      c.strokeStyle = '#FFFFFF';
      c.lineWidth = 5;
      c.stroke();
    }
    member.forEach((cell, i) => text(c, cell, [530, 960, 1680][i]!, y + 57, { size: 29 }));
    text(c, row % 3 ? 'Small electric' : 'Large gas', 2080, y + 57, { size: 29 });
  });
}

function form(c: Brush, f: NonNullable<KilnbookState['form']>) {
  c.fillStyle = 'rgba(30,42,50,0.35)';
  c.fillRect(0, 0, WIDTH, HEIGHT);
  box(c, 860, 360, 860, 720, color.panel, color.line, 12);
  text(c, 'New firing', 910, 430, { size: 38, weight: 600 });
  const field = (label: string, value: string, y: number, focus: boolean, caret: boolean) => {
    text(c, label, 910, y - 48, { size: 24, fill: color.soft });
    box(c, 910, y - 34, 760, 72, '#FFFFFF', focus ? color.accent : color.line);
    text(c, value + (caret ? '|' : ''), 932, y + 12, { size: 30 });
  };
  field('Name', f.name, place.nameField.y + 10, f.focus === 'name', f.focus === 'name');
  field('Kiln', f.kiln || 'Choose a kiln', place.kilnField.y + 10, f.focus === 'kiln', false);
  field('Day', 'Thursday 5 June', 810, false, false);
  button(c, 'Create', place.create.x, place.create.y, 190);
  button(c, 'Cancel', place.create.x - 220, place.create.y, 190, false);
  if (f.listOpen) {
    box(c, 910, 714, 760, 234, color.panel, color.accent);
    KILNS.forEach((kiln, i) => {
      if (i === 1) box(c, 916, 714 + i * 78 + 4, 748, 70, color.pale);
      text(c, kiln, 936, 714 + i * 78 + 50, { size: 30 });
    });
  }
}

function dialog(c: Brush) {
  c.fillStyle = 'rgba(30,42,50,0.35)';
  c.fillRect(0, 0, WIDTH, HEIGHT);
  box(c, 860, 500, 840, 430, color.panel, color.line, 12);
  text(c, 'Book the small electric kiln?', 910, 580, { size: 38, weight: 600 });
  text(c, 'Thursday 5 June, 14 hours, about 42 kWh.', 910, 650, { size: 30 });
  text(c, 'Two members are told.', 910, 700, { size: 30 });
  button(c, 'Confirm', place.confirm.x, place.confirm.y, 210);
  button(c, 'Not yet', place.confirm.x - 250, place.confirm.y, 210, false);
}

/** Draws the whole program. */
export function drawKilnbook(c: Brush, s: KilnbookState) {
  c.fillStyle = color.page;
  c.fillRect(0, 0, WIDTH, HEIGHT);
  box(c, 0, 0, WIDTH, 70, '#33424C', undefined, 0);
  text(c, 'Kilnbook', 40, 47, { size: 30, weight: 700, fill: '#FFFFFF' });
  text(c, 'Saltmarsh Clay, a pottery co-operative', WIDTH - 40, 46, {
    size: 24,
    fill: '#DCE5E8',
    align: 'right',
  });
  box(c, 0, 70, WIDTH, 76, color.panel, undefined, 0);
  ['Kilns', 'Firings', 'Glazes', 'Help'].forEach((label, i) => {
    if (i === 1 && s.menuOpen) box(c, 590, 76, 140, 64, color.pale);
    text(c, label, 410 + i * 200, 120, { size: 28 });
  });
  c.fillStyle = color.line;
  c.fillRect(0, 145, WIDTH, 2);
  box(c, 0, 147, 320, HEIGHT - 147, '#E2E8E6', undefined, 0);
  NAV.forEach((label, i) => {
    const active = ['week', 'firing', 'notes', 'members'].indexOf(s.view) === i;
    if (active) box(c, 16, 230 + i * 80 + 8, 288, 64, color.panel);
    text(c, label, 48, 230 + i * 80 + 50, { size: 28, weight: active ? 600 : 400 });
  });
  ({ week, firing, notes, members })[s.view](c, s);
  if (s.menuOpen) {
    box(c, 590, 146, 420, 330, color.panel, color.line);
    ['All firings', 'New firing…', 'Copy last firing', 'Templates'].forEach((item, i) => {
      if (i === s.menuHover) box(c, 598, 160 + i * 76, 404, 70, color.pale);
      text(c, item, 630, 206 + i * 76, { size: 30 });
    });
  }
  if (s.form) form(c, s.form);
  if (s.dialog) dialog(c);
}

/** The pointer as an operating system draws it over the program. */
export function drawPointer(c: Brush, x: number, y: number, shape: string) {
  c.save();
  c.translate(x, y);
  c.lineJoin = 'round';
  c.beginPath();
  if (shape === 'text') {
    for (const [w, stroke] of [
      [7, '#FFFFFF'],
      [3, '#111111'],
    ] as const) {
      c.beginPath();
      c.moveTo(-9, -22);
      c.quadraticCurveTo(0, -22, 0, -16);
      c.lineTo(0, 16);
      c.quadraticCurveTo(0, 22, -9, 22);
      c.moveTo(9, -22);
      c.quadraticCurveTo(0, -22, 0, -16);
      c.moveTo(0, 16);
      c.quadraticCurveTo(0, 22, 9, 22);
      c.lineWidth = w;
      c.strokeStyle = stroke;
      c.stroke();
    }
  } else {
    c.moveTo(0, 0);
    c.lineTo(0, 41);
    c.lineTo(10, 32);
    c.lineTo(17, 47);
    c.lineTo(25, 43);
    c.lineTo(18, 29);
    c.lineTo(31, 28);
    c.closePath();
    c.fillStyle = '#111111';
    c.fill();
    c.lineWidth = 3;
    c.strokeStyle = '#FFFFFF';
    c.stroke();
  }
  c.restore();
}
