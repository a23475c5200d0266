import { drawKilnbook, HEIGHT, WIDTH, type KilnbookState } from '@/practice/kilnbook';
import type { Brush } from '@/practice/brush';
import { Flash } from './flash';

/**
 * Draws the practice screen into frames: at each change, and again now and then so that none waits
 * for ever.
 */
export interface ScreenMessage {
  readonly writable?: WritableStream<VideoFrame>;
  readonly size?: { readonly width: number; readonly height: number };
  readonly fonts?: string;
  readonly state?: KilnbookState;
  /** When to flash: milliseconds since 1970, on the page's clock. */
  readonly flashAt?: number;
}

const IDLE_MS = 1000;
const LEAST_GAP_MS = 1000 / 60;

let canvas = new OffscreenCanvas(16, 16);
let writer: WritableStreamDefaultWriter<VideoFrame> | null = null;
let state: KilnbookState | null = null;
const flash = new Flash();
let timer: ReturnType<typeof setTimeout> | null = null;
let drawnAt = 0;
let ready = false;

function draw(): void {
  timer = null;
  if (!writer || !state || !ready) return;
  const context = canvas.getContext('2d')!;
  const scale = Math.min(canvas.width / WIDTH, canvas.height / HEIGHT);
  const now = performance.now();
  drawnAt = now;
  const flashes = flash.isOn(now);
  if (flashes) {
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
  } else {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.fillStyle = '#EEF1F0';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.setTransform(scale, 0, 0, scale, 0, 0);
    drawKilnbook(context as unknown as Brush, state);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }
  // Times are on the clock of the page, whose origin this worker knows.
  const frame = new VideoFrame(canvas, { timestamp: flash.stamp(now) });
  writer.write(frame).catch(() => frame.close());
  // One that was drawn too late is over with its picture.
  later(flash.wait(now) ?? (flashes ? LEAST_GAP_MS : IDLE_MS));
}

function later(ms: number): void {
  if (timer) clearTimeout(timer);
  timer = setTimeout(draw, ms);
}

onmessage = ({ data }: MessageEvent<ScreenMessage>) => {
  if (data.fonts) {
    const face = new FontFace('Kilnbook', `url(${data.fonts})`, { weight: '200 800' });
    // Drawn before the typeface is there, a canvas would keep to another one.
    void face
      .load()
      .then((loaded) => (self as unknown as { fonts: FontFaceSet }).fonts.add(loaded))
      .catch(() => undefined)
      .then(() => {
        ready = true;
        later(0);
      });
  }
  if (data.size) canvas = new OffscreenCanvas(data.size.width, data.size.height);
  if (data.writable) writer = data.writable.getWriter();
  if (data.state) state = data.state;
  if (data.flashAt !== undefined) {
    flash.announce(data.flashAt);
    later(flash.wait(performance.now()) ?? 0);
    return;
  }
  later(Math.max(0, LEAST_GAP_MS - (performance.now() - drawnAt)));
};
