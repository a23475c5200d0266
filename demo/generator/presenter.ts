import { createCanvas } from '@napi-rs/canvas';
import {
  CAMERA_HEIGHT,
  CAMERA_WIDTH,
  drawPresenter,
  drawWall,
  hairStrands,
} from '../../src/practice/presenter';
import { drawRoom } from '../../src/practice/room';
import { randomStream } from './random';

const W = CAMERA_WIDTH;
const H = CAMERA_HEIGHT;

/**
 * Draws the made presenter before a green wall, lit from one side, or in her studio, as a small
 * camera sees her.
 */
export class PresenterCamera {
  readonly width = W;
  readonly height = H;
  private readonly canvas = createCanvas(W, H);
  private readonly wall = createCanvas(W, H);
  private readonly noise: Int8Array;
  private readonly random = randomStream(77);
  private readonly strands: ReturnType<typeof hairStrands>;

  constructor(behind: 'wall' | 'room') {
    const c = this.wall.getContext('2d');
    if (behind === 'wall') drawWall(c);
    else drawRoom(c);
    const random = randomStream(5);
    this.noise = new Int8Array(W * H * 4 + 65536);
    for (let i = 0; i < this.noise.length; i++)
      this.noise[i] = Math.round((random() + random() + random() - 1.5) * 5.2);
    this.strands = hairStrands(random);
  }

  /**
   * The RGBA bytes of the frame at `t` seconds; `voice` is the loudness of the word being said, 0
   * to 1.
   */
  frame(t: number, voice: number): Uint8ClampedArray {
    const c = this.canvas.getContext('2d');
    c.drawImage(this.wall, 0, 0);
    drawPresenter(c, this.strands, t, voice);
    const pixels = c.getImageData(0, 0, W, H).data;
    const offset = Math.floor(this.random() * 65535);
    const noise = this.noise;
    for (let i = 0; i < pixels.length; i += 4) {
      const n = noise[i + offset]!;
      pixels[i]! += n + (noise[i + offset + 1]! >> 1);
      pixels[i + 1]! += n;
      pixels[i + 2]! += n + (noise[i + offset + 2]! >> 1);
    }
    return pixels;
  }
}
