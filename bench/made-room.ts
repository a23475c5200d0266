import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import { CAMERA_HEIGHT, CAMERA_WIDTH, drawPresenter, hairStrands } from '@/practice/presenter';
import { drawRoom } from '@/practice/room';
import { numbers } from './made-presenter';

/*
 * Made presenters in a room, of known opacity: drawn several times for each exposure, so that what
 * moves is blurred, over a background that does not know of them; then sensor noise, and light that
 * changes where a scene says so.
 */
export const ROOM = { width: CAMERA_WIDTH, height: CAMERA_HEIGHT };
const EXPOSURE = 4;
const COUNT = ROOM.width * ROOM.height;

/** A picture as RGBA bytes, and how opaque the presenter is in each pixel, 0 to 255. */
export interface RoomFrame {
  readonly pixels: Uint8ClampedArray;
  readonly alpha: Uint8Array;
}

export interface RoomScene {
  readonly name: string;
  /** @param empty without the presenter */
  readonly frame: (n: number, empty?: boolean) => RoomFrame;
}

type Figure = (pen: SKRSContext2D, time: number) => void;

function someone(): Figure {
  const strands = hairStrands(numbers(5));
  return (pen, time) => drawPresenter(pen, strands, time, 0.5 + 0.5 * Math.sin(time * 11));
}

/** A broader figure in a light shirt, who sits to the left and looks up and down. */
function another(): Figure {
  return (pen, time) => {
    const x = 500 + Math.sin(time * 0.8) * 16;
    const y = 270 + Math.sin(time * 1.7) * 7;
    pen.fillStyle = '#8FA3B0';
    pen.beginPath();
    pen.moveTo(x - 330, 720);
    pen.bezierCurveTo(x - 310, 520, x - 180, 470, x, 450);
    pen.bezierCurveTo(x + 180, 470, x + 310, 520, x + 330, 720);
    pen.fill();
    const disc = (color: string, dx: number, dy: number, rx: number, ry: number) => {
      pen.fillStyle = color;
      pen.beginPath();
      pen.ellipse(x + dx, y + dy, rx, ry, 0, 0, Math.PI * 2);
      pen.fill();
    };
    pen.fillStyle = '#8A5A3C';
    pen.fillRect(x - 55, y + 80, 110, 120);
    disc('#1E1A18', 0, -50, 122, 110);
    disc('#9C6B4A', 0, 15, 105, 132);
    disc('#1E1A18', 0, -95, 100, 42);
    for (const side of [-1, 1]) {
      disc('#F4F2EE', side * 42, -5, 18, 11);
      disc('#2B1D14', side * 42, -5, 8, 9);
    }
    disc('#5E2E28', 0, 78, 34, 8 + 6 * Math.sin(time * 13));
    const lift = 90 * Math.max(0, Math.sin(time * 1.3));
    disc('#9C6B4A', 260, 400 - lift, 46, 52);
  };
}

function scene(name: string, figure: Figure, light: (time: number) => number): RoomScene {
  const room = createCanvas(ROOM.width, ROOM.height);
  drawRoom(room.getContext('2d'));
  const behind = room.getContext('2d').getImageData(0, 0, ROOM.width, ROOM.height).data;
  const canvas = createCanvas(ROOM.width, ROOM.height);
  const pen = canvas.getContext('2d');
  return {
    name,
    frame(n, empty = false) {
      const sums = new Float32Array(COUNT * 4);
      for (let e = 0; e < EXPOSURE && !empty; e++) {
        pen.clearRect(0, 0, ROOM.width, ROOM.height);
        figure(pen, (n + (e / EXPOSURE) * 0.7) / 30);
        const { data } = pen.getImageData(0, 0, ROOM.width, ROOM.height);
        for (let i = 0; i < COUNT; i++) {
          const a = data[i * 4 + 3]! / EXPOSURE;
          if (!a) continue;
          sums[i * 4 + 3]! += a;
          for (let c = 0; c < 3; c++) sums[i * 4 + c]! += (data[i * 4 + c]! * a) / 255;
        }
      }
      const random = numbers(n + 1);
      const noise = () => (random() + random() + random() - 1.5) * 7;
      const gain = light(n / 30);
      const pixels = new Uint8ClampedArray(COUNT * 4);
      const alpha = new Uint8Array(COUNT);
      for (let i = 0; i < COUNT; i++) {
        const a = sums[i * 4 + 3]!;
        alpha[i] = Math.round(a);
        for (let c = 0; c < 3; c++)
          pixels[i * 4 + c] =
            (sums[i * 4 + c]! + behind[i * 4 + c]! * (1 - a / 255)) * gain + noise();
        pixels[i * 4 + 3] = 255;
      }
      return { pixels, alpha };
    },
  };
}

/** Scenes of a presenter without a wall. */
export const roomScenes = (): RoomScene[] => [
  scene('long hair, talks with her hands', someone(), () => 1),
  scene('light shirt before a light wall', another(), () => 1),
  scene('a cloud comes and goes', someone(), (time) => 1 - 0.18 * Math.sin(time * 0.9) ** 2),
];
