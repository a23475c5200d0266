import { execFileSync } from 'node:child_process';
import { createCanvas, GlobalFonts, type SKRSContext2D } from '@napi-rs/canvas';
import { Resampler } from '@/compositor/resampler';
import { PICTURE_FAMILY, PICTURE_FONTS } from '@/compositor/font-parts';
import type { Rect, Size } from '@/core/scale/rect';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { table } from './measure';
import { FULL_HD } from './scenes';
import { acuity, ssim } from './ssim';

/*
 * Text scaled from a recording of 2560x1440, against the same text drawn as vectors at the output's
 * size. Luma only: that is where text is.
 */
const RECORDING: Size = { width: 2560, height: 1440 };
const CASES: readonly { readonly name: string; readonly view: Rect }[] = [
  { name: '2560x1440 to 1920x1080', view: { x: 0, y: 0, ...RECORDING } },
  { name: '1:1', view: { x: 320, y: 180, ...FULL_HD } },
  { name: 'zoom of 1.5', view: { x: 500, y: 300, width: 1280, height: 720 } },
];
const WORDS =
  'Ramp 120 °C/h, soak 15 min, cone 6: celadon over slip. Book the small electric kiln for Friday, 9:00. ';

/**
 * Samples a pixel in both directions: drawn so much larger, letters are neither hinted nor made
 * bolder, and their edges are their coverage.
 */
const FINE = 4;
const TILE: Size = { width: 640, height: 360 };

/**
 * A page of small text, as it is seen through a view: the mean of what is drawn larger, tile by
 * tile.
 */
function page(view: Rect, { width, height }: Size): Uint8ClampedArray {
  const out = new Uint8ClampedArray(width * height * 4).fill(255);
  const canvas = createCanvas(TILE.width * FINE, TILE.height * FINE);
  const pen = canvas.getContext('2d');
  for (let top = 0; top < height; top += TILE.height)
    for (let left = 0; left < width; left += TILE.width) {
      pen.resetTransform();
      pen.scale(FINE, FINE);
      pen.translate(-left, -top);
      pen.scale(width / view.width, height / view.height);
      pen.translate(-view.x, -view.y);
      write(pen);
      const fine = pen.getImageData(0, 0, TILE.width * FINE, TILE.height * FINE).data;
      for (let y = 0; y < Math.min(TILE.height, height - top); y++)
        for (let x = 0; x < Math.min(TILE.width, width - left); x++)
          for (let c = 0; c < 3; c++) {
            let sum = 0;
            for (let v = 0; v < FINE; v++)
              for (let u = 0; u < FINE; u++)
                sum += fine[((y * FINE + v) * TILE.width * FINE + x * FINE + u) * 4 + c]!;
            out[((top + y) * width + left + x) * 4 + c] = sum / FINE / FINE;
          }
    }
  return out;
}

function write(pen: SKRSContext2D): void {
  pen.fillStyle = '#fffdf8';
  pen.fillRect(0, 0, RECORDING.width, RECORDING.height);
  for (let row = 0; row * 26 < RECORDING.height; row++) {
    pen.font = `${400 + (row % 3) * 150} ${15 + (row % 4) * 3}px ${PICTURE_FAMILY}`;
    pen.fillStyle = ['#1e2a32', '#55626c', '#0e6b63', '#a61b1b'][row % 4]!;
    pen.fillText(WORDS.repeat(4).slice(row * 3), 30, 26 + row * 26);
  }
}

const luma = (rgba: Uint8ClampedArray): Uint8Array =>
  Uint8Array.from({ length: rgba.length / 4 }, (_, i) =>
    Math.round(
      16 +
        ((rgba[i * 4]! * 0.2126 + rgba[i * 4 + 1]! * 0.7152 + rgba[i * 4 + 2]! * 0.0722) * 219) /
          255,
    ),
  );

/** Luma scaled by FFmpeg's filter of a name. */
const byFfmpeg = (source: Uint8Array, { x, y, width, height }: Rect, flags: string): Uint8Array =>
  execFileSync(
    'ffmpeg',
    [
      ...[
        '-v',
        'error',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'gray',
        '-s',
        `${RECORDING.width}x${RECORDING.height}`,
        '-i',
        '-',
      ],
      ...[
        '-vf',
        `crop=${width}:${height}:${x}:${y},scale=${FULL_HD.width}:${FULL_HD.height}:flags=${flags}+accurate_rnd+full_chroma_int`,
      ],
      ...['-f', 'rawvideo', '-pix_fmt', 'gray', '-'],
    ],
    { input: source, maxBuffer: 1 << 26 },
  );

function byCanvas(rgba: Uint8ClampedArray, { x, y, width, height }: Rect): Uint8Array {
  const from = createCanvas(RECORDING.width, RECORDING.height);
  const image = from.getContext('2d').createImageData(RECORDING.width, RECORDING.height);
  image.data.set(rgba);
  from.getContext('2d').putImageData(image, 0, 0);
  const to = createCanvas(FULL_HD.width, FULL_HD.height).getContext('2d');
  to.imageSmoothingEnabled = true;
  to.imageSmoothingQuality = 'high';
  to.drawImage(from, x, y, width, height, 0, 0, FULL_HD.width, FULL_HD.height);
  return luma(to.getImageData(0, 0, FULL_HD.width, FULL_HD.height).data);
}

export async function benchSharpness(): Promise<void> {
  // Registers the typeface.
  await nodeRasterizer();
  if (!PICTURE_FONTS.every(({ family }) => GlobalFonts.has(family)))
    throw new Error('The typeface is not there.');
  const heap = await loadKernels();
  const resampler = new Resampler(heap);
  const rgba = page({ x: 0, y: 0, ...RECORDING }, RECORDING);
  const recording = luma(rgba);
  const { width, height } = FULL_HD;
  const source = { at: heap.put(recording), stride: RECORDING.width, ...RECORDING };
  const target = { at: heap.allocate(width * height + 64), stride: width, width, height };
  const byVistum = ({ x, y, width: w, height: h }: Rect): Uint8Array => {
    resampler.resample(
      source,
      { columns: { origin: x, span: w }, rows: { origin: y, span: h }, mirror: false },
      target,
    );
    return heap.bytes(target.at, width * height).slice();
  };
  const rows: (string | number)[][] = [];
  for (const { name, view } of CASES) {
    const truth = luma(page(view, FULL_HD));
    const ways: [string, Uint8Array][] = [
      ['Vistum', byVistum(view)],
      ['FFmpeg lanczos', byFfmpeg(recording, view, 'lanczos')],
      ['FFmpeg bicubic', byFfmpeg(recording, view, 'bicubic')],
      ['Canvas 2D, high', byCanvas(rgba, view)],
    ];
    for (const [way, picture] of ways)
      rows.push([
        name,
        way,
        ssim(picture, truth, width, height).toFixed(4),
        (acuity(picture, width, height) / acuity(truth, width, height)).toFixed(3),
      ]);
  }
  console.log(
    `\n### Sharpness of text against vectors drawn at the output's size\n\n${table(['', 'way', 'SSIM', 'edges, 1 is the truth'], rows)}`,
  );
}
