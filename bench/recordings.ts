import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createCanvas, type Canvas, type SKRSContext2D } from '@napi-rs/canvas';
import type { PointerEvent, PointerSample, PointerTrack } from '@/core/telemetry/pointer-track';

/** A recording to be made, whose pointer is known. */
export interface RecordingPlan {
  readonly name: string;
  readonly seed: number;
  readonly width: number;
  readonly height: number;
  readonly fps: number;
  readonly seconds: number;
  readonly ground: 'light' | 'dark' | 'photo' | 'text';
  readonly pointer: { readonly size: number; readonly fill: string; readonly rim: string };
  /** Whether it becomes a text cursor over words and a hand over buttons. */
  readonly changes: boolean;
  readonly distractors: readonly ('caret' | 'spinner' | 'video' | 'scroll' | 'drag')[];
  /** Arguments of the encoder. */
  readonly codec: readonly string[];
  readonly file: string;
  /** The recording is scaled by this before it is encoded. */
  readonly scale?: number;
}

export interface MadeRecording {
  readonly track: PointerTrack;
  readonly hidden: readonly (readonly [from: number, to: number])[];
}

interface Place {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly kind: 'button' | 'field';
}

type Shape = 'arrow' | 'text' | 'hand';

class Chance {
  constructor(private state: number) {}

  /** Park and Miller's generator, 0 to 1. */
  next(): number {
    this.state = (this.state * 48_271) % 2_147_483_647;
    return this.state / 2_147_483_647;
  }

  between = (low: number, high: number): number => low + (high - low) * this.next();
  pick = <T>(list: readonly T[]): T => list[Math.floor(this.next() * list.length)]!;
}

const WORDS = 'roof ledger kiln amber slate order glaze batch clay shelf fire cone tile'.split(' ');

/** Draws a page: a heading, paragraphs, buttons, fields. */
function drawPage(plan: RecordingPlan, chance: Chance): { page: Canvas; places: Place[] } {
  const { width, height, ground } = plan;
  const page = createCanvas(width, height * 2);
  const pen = page.getContext('2d');
  const dark = ground === 'dark';
  pen.fillStyle = dark ? '#1d2024' : ground === 'photo' ? '#6f7f6a' : '#fbfaf7';
  pen.fillRect(0, 0, width, height * 2);
  if (ground === 'photo')
    for (let i = 0; i < 1400; i++) {
      pen.fillStyle = `hsl(${chance.between(20, 220)} ${chance.between(10, 60)}% ${chance.between(15, 85)}% / .35)`;
      const r = chance.between(4, 160);
      pen.beginPath();
      pen.ellipse(chance.next() * width, chance.next() * height * 2, r, r * 0.7, i, 0, 7);
      pen.fill();
    }
  const size = Math.round(height / 60);
  pen.font = `${size}px sans-serif`;
  const rows = ground === 'text' ? 90 : 34;
  for (let i = 0; i < rows; i++) {
    pen.fillStyle = dark ? '#c9ced6' : '#26241f';
    const text = Array.from({ length: ground === 'text' ? 22 : 9 }, () => chance.pick(WORDS));
    pen.fillText(text.join(' '), width * 0.3, size * 3 + i * ((height * 2) / rows));
  }
  const places: Place[] = [];
  for (let i = 0; i < 14; i++) {
    const kind = i % 3 === 2 ? ('field' as const) : ('button' as const);
    const [w, h] = [width * (kind === 'field' ? 0.2 : 0.09), height * 0.045];
    const x = i % 2 ? chance.between(0.02, 0.2) * width : chance.between(0.5, 0.76) * width;
    const place = { x, y: (0.05 + i * 0.063) * height, w, h, kind };
    pen.fillStyle =
      kind === 'field' ? (dark ? '#101215' : '#ffffff') : dark ? '#34506e' : '#d8e4ec';
    pen.strokeStyle = dark ? '#58606a' : '#8d8a80';
    pen.fillRect(place.x, place.y, w, h);
    pen.strokeRect(place.x, place.y, w, h);
    pen.fillStyle = dark ? '#e8ebef' : '#22303c';
    pen.fillText(chance.pick(WORDS), place.x + 10, place.y + h * 0.65);
    places.push(place);
  }
  return { page, places };
}

function drawPointer(
  pen: SKRSContext2D,
  shape: Shape,
  x: number,
  y: number,
  { size, fill, rim }: RecordingPlan['pointer'],
): void {
  const s = size / 20;
  pen.save();
  pen.translate(x, y);
  pen.scale(s, s);
  pen.lineJoin = 'round';
  pen.strokeStyle = rim;
  pen.fillStyle = fill;
  pen.lineWidth = 1.6;
  pen.beginPath();
  if (shape === 'text') {
    for (const [style, width] of [
      [rim, 4],
      [fill, 1.6],
    ] as const) {
      pen.strokeStyle = style;
      pen.lineWidth = width;
      pen.beginPath();
      for (const [a, b, c, d] of [
        [0, -9, 0, 9],
        [-3, -9, 3, -9],
        [-3, 9, 3, 9],
      ] as const) {
        pen.moveTo(a, b);
        pen.lineTo(c, d);
      }
      pen.stroke();
    }
  } else if (shape === 'hand') {
    pen.roundRect(-2, 0, 4, 13, 2);
    pen.roundRect(-6, 8, 14, 11, 4);
    pen.stroke();
    pen.fill();
  } else {
    const outline = [0, 0, 0, 17, 4, 13.4, 6.6, 19.4, 9.4, 18.2, 6.9, 12.4, 12, 12.2];
    for (let i = 0; i < outline.length; i += 2) pen.lineTo(outline[i]!, outline[i + 1]!);
    pen.closePath();
    pen.stroke();
    pen.fill();
  }
  pen.restore();
}

/** A film of soft things that move before each other. */
function drawVideo(pen: SKRSContext2D, left: number, top: number, t: number): void {
  pen.save();
  pen.beginPath();
  pen.rect(left, top, 420, 260);
  pen.clip();
  pen.fillStyle = `hsl(${(t / 90) % 360} 30% 40%)`;
  pen.fillRect(left, top, 420, 260);
  for (let i = 0; i < 14; i++) {
    const x = left + 210 + 190 * Math.sin(t / (700 + 90 * i) + i * 2);
    const y = top + 130 + 110 * Math.cos(t / (900 - 30 * i) + i);
    const r = 24 + 8 * i * (1 + 0.4 * Math.sin(t / 600 + i));
    const shade = pen.createRadialGradient(x, y, r * 0.2, x, y, r);
    shade.addColorStop(0, `hsl(${i * 47} 60% ${30 + i * 3}% / .9)`);
    shade.addColorStop(1, `hsl(${i * 47} 60% 50% / 0)`);
    pen.fillStyle = shade;
    pen.fillRect(x - r, y - r, 2 * r, 2 * r);
  }
  pen.restore();
}

/** What happens on the screen beside the pointer. */
interface Scene {
  scroll: number;
  typed: number;
  field: Place | null;
  pressed: Place | null;
  menu: Place | null;
}

function drawScene(plan: RecordingPlan, page: Canvas, scene: Scene, pen: SKRSContext2D, t: number) {
  const { width, height, distractors } = plan;
  pen.drawImage(page, 0, -scene.scroll);
  const { field, pressed, menu } = scene;
  if (pressed) {
    pen.fillStyle = 'rgb(120 80 30 / .35)';
    pen.fillRect(pressed.x, pressed.y - scene.scroll, pressed.w, pressed.h);
  }
  if (menu) {
    pen.fillStyle = plan.ground === 'dark' ? '#2b3036' : '#ffffff';
    pen.fillRect(menu.x, menu.y + menu.h - scene.scroll, 260, 190);
    pen.fillStyle = plan.ground === 'dark' ? '#e0e4ea' : '#30343a';
    for (let i = 0; i < 6; i++)
      pen.fillText(WORDS[i]!, menu.x + 14, menu.y + menu.h + 28 + i * 28 - scene.scroll);
  }
  if (field) {
    pen.fillStyle = plan.ground === 'dark' ? '#f4f6f8' : '#191919';
    const text = 'kiln fourteen amber glaze order'.slice(0, scene.typed);
    const y = field.y - scene.scroll + field.h * 0.65;
    pen.fillText(text, field.x + 70, y);
    if (distractors.includes('caret') && t % 1000 < 500)
      pen.fillRect(field.x + 72 + pen.measureText(text).width, y - field.h * 0.5, 2, field.h * 0.6);
  }
  if (distractors.includes('spinner')) {
    pen.strokeStyle = '#b3541e';
    pen.lineWidth = 5;
    pen.beginPath();
    pen.arc(width * 0.9, height * 0.12, 18, t / 120, t / 120 + 4);
    pen.stroke();
  }
  if (distractors.includes('video')) drawVideo(pen, width * 0.7, height * 0.6, t);
}

/**
 * Makes a recording of a made session, and tells where its pointer was, what was pressed and when it
 * was hidden; in pixels of the recording.
 */
export async function makeRecording(plan: RecordingPlan): Promise<MadeRecording> {
  const { width, height, fps, seconds, scale = 1 } = plan;
  const chance = new Chance(plan.seed);
  const { page, places } = drawPage(plan, chance);
  const canvas = createCanvas(width, height);
  const pen = canvas.getContext('2d');
  const [outW, outH] = [width, height].map((n) => Math.round((n * scale) / 2) * 2) as [
    number,
    number,
  ];
  const encoder = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`],
      ...['-r', String(fps), '-i', 'pipe:0', '-vf', `scale=${outW}:${outH}:flags=bicubic`],
      ...['-pix_fmt', 'yuv420p', ...plan.codec, plan.file],
    ],
    { stdio: ['pipe', 'ignore', 'inherit'] },
  );
  const ended = once(encoder, 'close');
  const samples: PointerSample[] = [];
  const events: PointerEvent[] = [];
  const hidden: [number, number][] = [];
  const scene: Scene = { scroll: 0, typed: 0, field: null, pressed: null, menu: null };
  let [x, y] = [width * 0.5, height * 0.5];
  let from = { x, y };
  let to = { x, y, place: null as Place | null };
  let [began, until] = [0, 400];
  let now = 'rest' as 'rest' | 'move' | 'type' | 'scroll';
  let next = 'go' as 'go' | 'press' | 'type';
  const begin = (what: typeof now, t: number, length: number, then: typeof next) => {
    [began, until, now, next] = [t, t + length, what, then];
  };
  const press = (t: number, place: Place) => {
    events.push({ t, type: 'down', button: 0 }, { t: t + 70, type: 'up', button: 0 });
    scene.menu = !scene.menu && place.kind === 'button' ? place : null;
    scene.pressed = place;
    scene.field = place.kind === 'field' ? place : null;
    scene.typed = 0;
    begin('rest', t, chance.between(300, 1400), scene.field && chance.next() < 0.7 ? 'type' : 'go');
  };
  const go = (t: number) => {
    scene.pressed = null;
    if (plan.distractors.includes('scroll') && chance.next() < 0.25) {
      scene.menu = null;
      scene.field = null;
      begin('scroll', t, chance.between(500, 1200), 'go');
      return;
    }
    const place = chance.next() < 0.75 ? chance.pick(places) : null;
    from = { x, y };
    const [u, v] = [chance.between(0.05, 0.92), chance.between(0.05, 0.9)];
    to = place
      ? { x: place.x + place.w * u, y: place.y + place.h / 2 - scene.scroll, place }
      : { x: u * width, y: v * height, place };
    // What was scrolled away can't be pressed.
    if (to.y < 4 || to.y > height - 30) to = { x: u * width, y: v * height, place: null };
    begin('move', t, chance.between(350, 1000), to.place ? 'press' : 'go');
  };
  for (let frame = 0; frame < seconds * fps; frame++) {
    const t = (frame * 1000) / fps;
    if (t >= until) {
      if (next === 'press' && to.place) press(t, to.place);
      else if (next === 'type') {
        const length = chance.between(1200, 2600);
        if (plan.changes) hidden.push([t, t + length]);
        begin('type', t, length, 'go');
      } else go(t);
    }
    if (now === 'scroll') scene.scroll = Math.min(height, scene.scroll + (fps > 20 ? 14 : 28));
    if (now === 'type') scene.typed = Math.floor((t - began) / 110);
    if (now === 'move') {
      const u = Math.min(1, (t - began) / Math.max(1, (until - began) * 0.8));
      const eased = u * u * u * (10 - 15 * u + 6 * u * u);
      x = from.x + (to.x - from.x) * eased + Math.sin(eased * Math.PI) * (to.y - from.y) * 0.06;
      y = from.y + (to.y - from.y) * eased;
    }
    // Systems draw pointers on whole pixels.
    const [px, py] = [Math.round(x), Math.round(y)];
    drawScene(plan, page, scene, pen, t);
    const under = places.find(
      (p) => x >= p.x && x <= p.x + p.w && y + scene.scroll >= p.y && y + scene.scroll <= p.y + p.h,
    );
    const shape: Shape =
      !plan.changes || !under ? 'arrow' : under.kind === 'field' ? 'text' : 'hand';
    // Some systems hide the pointer while something is typed.
    if (now !== 'type' || !plan.changes) drawPointer(pen, shape, px, py, plan.pointer);
    samples.push([t, px * scale, py * scale]);
    const { data } = pen.getImageData(0, 0, width, height);
    if (!encoder.stdin.write(Buffer.from(data.buffer))) await once(encoder.stdin, 'drain');
  }
  encoder.stdin.end();
  await ended;
  return {
    track: {
      ...{ format: 'vistum-pointer', version: 1, width: outW, height: outH, inPicture: true },
      ...{ samples, events },
    },
    hidden,
  };
}
