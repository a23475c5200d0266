import type { Brush } from '@/practice/brush';
import {
  CAMERA_HEIGHT,
  CAMERA_WIDTH,
  drawPresenter,
  drawWall,
  hairStrands,
} from '@/practice/presenter';
import { Flash } from './flash';

export interface CameraMessage {
  readonly writable?: WritableStream<VideoFrame>;
  readonly size?: { readonly width: number; readonly height: number };
  readonly frameRate?: number;
  /** When to flash: milliseconds since 1970, on the page's clock. */
  readonly flashAt?: number;
  readonly stop?: boolean;
}

const GRAINS = 4;
const STRANDS = 60;

let writer: WritableStreamDefaultWriter<VideoFrame> | null = null;
let canvas = new OffscreenCanvas(CAMERA_WIDTH, CAMERA_HEIGHT);
let wall: OffscreenCanvas | null = null;
let grains: OffscreenCanvas[] = [];
const flash = new Flash();
let frameRate = 30;
let timer: ReturnType<typeof setTimeout> | null = null;
const began = performance.now();
let count = 0;
let slot = 0;

let seed = 7;
const random = () => (seed = (seed * 1664525 + 1013904223) >>> 0) / 4294967296;
const strands = hairStrands(random, STRANDS);

/** What does not change from frame to frame: the wall, and a few patterns of sensor noise. */
function prepare(width: number, height: number): void {
  canvas = new OffscreenCanvas(width, height);
  wall = new OffscreenCanvas(width, height);
  const c = wall.getContext('2d')!;
  c.setTransform(width / CAMERA_WIDTH, 0, 0, height / CAMERA_HEIGHT, 0, 0);
  drawWall(c as unknown as Brush);
  grains = Array.from({ length: GRAINS }, () => {
    const grain = new OffscreenCanvas(width, height);
    const g = grain.getContext('2d')!;
    const pixels = g.createImageData(width, height);
    for (let i = 0; i < pixels.data.length; i += 4) {
      const light = random() < 0.5 ? 0 : 255;
      pixels.data.set([light, light, light, Math.floor(random() * 9)], i);
    }
    g.putImageData(pixels, 0, 0);
    return grain;
  });
}

function draw(): void {
  if (!writer || !wall) return;
  const now = performance.now();
  const c = canvas.getContext('2d')!;
  c.setTransform(1, 0, 0, 1, 0, 0);
  if (flash.isOn(now)) {
    c.fillStyle = '#ffffff';
    c.fillRect(0, 0, canvas.width, canvas.height);
  } else {
    const t = (now - began) / 1000;
    c.drawImage(wall, 0, 0);
    c.setTransform(canvas.width / CAMERA_WIDTH, 0, 0, canvas.height / CAMERA_HEIGHT, 0, 0);
    drawPresenter(
      c as unknown as Brush,
      strands,
      t,
      0.5 + 0.5 * Math.sin(t * 9) * Math.sin(t * 2.3),
    );
    c.setTransform(1, 0, 0, 1, 0, 0);
    c.drawImage(grains[count % GRAINS]!, 0, 0);
  }
  const frame = new VideoFrame(canvas, { timestamp: flash.stamp(now) });
  writer.write(frame).catch(() => frame.close());
  count++;
  // The next whole frame's time; a timer that fires a little early must not give two frames for
  // one.
  slot = Math.max(slot + 1, Math.floor(((performance.now() - began) / 1000) * frameRate));
  timer = setTimeout(draw, Math.max(0, began + (slot * 1000) / frameRate - performance.now()));
}

onmessage = ({ data }: MessageEvent<CameraMessage>) => {
  if (data.frameRate) frameRate = data.frameRate;
  if (data.size) prepare(data.size.width, data.size.height);
  if (data.writable) {
    writer = data.writable.getWriter();
    draw();
  }
  if (data.flashAt !== undefined) flash.announce(data.flashAt);
  if (data.stop) {
    if (timer) clearTimeout(timer);
    writer = null;
  }
};
