import { createCanvas, type Canvas } from '@napi-rs/canvas';
import type { PrivateKind } from '@/core/private/patterns';
import { isCard } from '@/core/private/numbers';
import type { Rect } from '@/core/scale/rect';
import { chance } from './moving-pages';

/** How a page of private and other things looks. */
export interface PageTheme {
  readonly name: string;
  readonly paper: string;
  readonly ink: string;
  readonly rule: string;
  readonly font: string;
  /** Of its letters, in pixels. */
  readonly size: number;
}

/** The themes in which private data is to be found. */
export const THEMES: readonly PageTheme[] = [
  {
    name: 'light, 13 px',
    paper: '#fdfcf9',
    ink: '#2a2a28',
    rule: '#dedad0',
    font: 'sans',
    size: 13,
  },
  {
    name: 'dark, 13 px',
    paper: '#1b1e22',
    ink: '#c8cdd4',
    rule: '#33383f',
    font: 'sans',
    size: 13,
  },
  {
    name: 'warm, 18 px',
    paper: '#efe6d4',
    ink: '#4a3b28',
    rule: '#cdbfa4',
    font: 'serif',
    size: 18,
  },
];

/** Something private that a page shows. */
export interface PrivateTruth {
  readonly kind: PrivateKind;
  readonly rect: Rect;
}

const NAMES = 'ada mira jonas pell tovan lise orrin wenna sidel bram'.split(' ');
const WORDS = 'roof ledger kiln amber slate order glaze batch clay shelf fire cone tile'.split(' ');
const SIGNS = 'ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnopqrstuvwxyz23456789';

type Random = () => number;
const pick = <T>(list: readonly T[] | string, random: Random): T =>
  list[Math.floor(random() * list.length)] as T;
const digits = (count: number, random: Random): string =>
  Array.from({ length: count }, () => Math.floor(random() * 10)).join('');
const grouped = (text: string, by: number): string =>
  text.match(new RegExp(`.{1,${by}}`, 'g'))!.join(' ');

function card(random: Random): string {
  const start = `9${digits(14, random)}`;
  const last = [...'0123456789'].find((digit) => isCard(start + digit))!;
  return grouped(start + last, 4);
}

/** An account with the check digits of ISO/IEC 7064, mod 97-10, in a country that there is not. */
function account(random: Random): string {
  const own = digits(18, random);
  const rest = [...`${own}333500`].reduce((sum, digit) => (sum * 10 + Number(digit)) % 97, 0);
  return grouped(`XZ${String(98 - rest).padStart(2, '0')}${own}`, 4);
}

const PRIVATE: readonly (readonly [PrivateKind, (random: Random) => string])[] = [
  ['email', (r) => `${pick(NAMES, r)}.${pick(WORDS, r)}${digits(2, r)}@kilnbook.example`],
  ['email', (r) => `${pick(NAMES, r)}@studio-${pick(WORDS, r)}.example`],
  ['phone', (r) => `+00 ${digits(3, r)} ${digits(4, r)}`],
  ['phone', (r) => `(0${digits(2, r)}) ${digits(4, r)} ${digits(4, r)}`],
  ['card', card],
  ['account', account],
  ['key', (r) => `kb_${Array.from({ length: 24 }, () => pick(SIGNS, r)).join('')}`],
];

const OTHER: readonly ((random: Random) => string)[] = [
  (r) => `Order ${digits(5, r)}`,
  (r) => `2026-0${1 + Math.floor(r() * 8)}-1${digits(1, r)} 14:0${digits(1, r)}`,
  (r) => `${pick(WORDS, r)} ${pick(WORDS, r)} ${pick(WORDS, r)}`,
  (r) => `${digits(2, r)}.${digits(1, r)}.${digits(3, r)}`,
  (r) => `src/${pick(WORDS, r)}/${pick(WORDS, r)}-${pick(WORDS, r)}.ts`,
  (r) => `https://kilnbook.example/${pick(WORDS, r)}/${pick(WORDS, r)}`,
  (r) => `${digits(3, r)}.${digits(2, r)} a kilo`,
  (r) => `cone ${digits(1, r)}, ${digits(4, r)} °C`,
  (r) => `#${digits(6, r)}`,
  (r) => `${1 + Math.floor(r() * 9)} of ${10 + Math.floor(r() * 80)} fired`,
];

const COLUMNS = [60, 480, 900, 1320];
const WIDTH = 1920;
const HEIGHT = 1080;

/** A page of a table with something private in about every third cell. */
export function privatePage(
  theme: PageTheme,
  seed: number,
): { page: Canvas; truth: PrivateTruth[] } {
  const random = chance(seed);
  const page = createCanvas(WIDTH, HEIGHT);
  const pen = page.getContext('2d');
  const row = theme.size * 2.6;
  pen.fillStyle = theme.paper;
  pen.fillRect(0, 0, WIDTH, HEIGHT);
  pen.font = `${theme.size}px ${theme.font === 'serif' ? 'serif' : 'sans-serif'}`;
  pen.textBaseline = 'middle';
  const truth: PrivateTruth[] = [];
  for (let y = 40; y + row < HEIGHT; y += row) {
    pen.fillStyle = theme.rule;
    pen.fillRect(40, Math.round(y + row) - 1, WIDTH - 80, 1);
    pen.fillStyle = theme.ink;
    for (const x of COLUMNS) {
      const found = random() < 0.33 ? pick(PRIVATE, random) : null;
      const text = found ? found[1](random) : pick(OTHER, random)(random);
      pen.fillText(text, x, y + row / 2);
      const ink = pen.measureText(text);
      const [above, below] = [ink.actualBoundingBoxAscent, ink.actualBoundingBoxDescent];
      const rect = { x, y: y + row / 2 - above, width: ink.width, height: above + below };
      if (found) truth.push({ kind: found[0], rect });
    }
  }
  return { page, truth };
}
