import type {
  PointerEvent,
  PointerSample,
  PointerTrack,
} from '../../src/core/telemetry/pointer-track';
import { randomStream } from './random';

/** A change of the drawn program, at a time in milliseconds. */
export interface StateChange<S> {
  readonly t: number;
  readonly apply: (state: S) => void;
}

export interface Performance<S> {
  readonly duration: number;
  readonly track: PointerTrack;
  readonly changes: readonly StateChange<S>[];
}

const SAMPLE_INTERVAL = 16;

/** Minimum-jerk position over 0..1: how a hand starts and stops (Flash and Hogan, 1985). */
const minimumJerk = (u: number) => u * u * u * (10 - 15 * u + 6 * u * u);

/**
 * Performs a script as a person's hand would: curved paths, a slight overshoot
 * with a correction, small fidgets while waiting, uneven typing.
 */
export class Actor<S> {
  private now = 0;
  private x: number;
  private y: number;
  private readonly samples: PointerSample[] = [];
  private readonly events: PointerEvent[] = [];
  private readonly changes: StateChange<S>[] = [];
  private readonly random = randomStream(20261);

  constructor(
    private readonly width: number,
    private readonly height: number,
    start: { x: number; y: number },
  ) {
    this.x = start.x;
    this.y = start.y;
    this.samples.push([0, start.x, start.y]);
  }

  get time(): number {
    return this.now;
  }

  change(apply: (state: S) => void): this {
    this.changes.push({ t: this.now, apply });
    return this;
  }

  shape(shape: 'arrow' | 'text'): this {
    this.events.push({ t: this.now, type: 'shape', shape });
    return this;
  }

  /** Waits until a time; the hand fidgets now and then meanwhile. */
  until(time: number): this {
    while (this.now + 900 < time) {
      const rest = Math.min(time - this.now, 700 + this.random() * 1500);
      this.now += rest;
      if (this.now + 260 < time && this.random() < 0.6)
        this.path(this.x + (this.random() - 0.5) * 34, this.y + (this.random() - 0.5) * 26, 240);
    }
    this.now = Math.max(this.now, time);
    this.sample(this.now, this.x, this.y);
    return this;
  }

  wait(duration: number): this {
    return this.until(this.now + duration);
  }

  moveTo(x: number, y: number, onWay?: (state: S, x: number, y: number) => void): this {
    const distance = Math.hypot(x - this.x, y - this.y);
    const duration = 260 + 90 * Math.log2(1 + distance / 40);
    if (distance > 320 && !onWay) {
      const over = 1 + (10 + this.random() * 22) / distance;
      this.path(this.x + (x - this.x) * over, this.y + (y - this.y) * over, duration);
      this.now += 60;
      this.path(x, y, 190);
    } else this.path(x, y, duration, onWay);
    return this;
  }

  press(apply?: (state: S) => void): this {
    this.now += 110;
    this.events.push({ t: Math.round(this.now), type: 'down', button: 0 });
    this.now += 85;
    this.events.push({ t: Math.round(this.now), type: 'up', button: 0 });
    if (apply) this.change(apply);
    return this;
  }

  drag(x: number, y: number, onWay: (state: S, x: number, y: number) => void): this {
    this.now += 150;
    this.events.push({ t: Math.round(this.now), type: 'down', button: 0 });
    this.now += 120;
    this.path(x, y, 1500, onWay);
    this.now += 160;
    this.events.push({ t: Math.round(this.now), type: 'up', button: 0 });
    return this;
  }

  type(text: string, put: (state: S, character: string) => void): this {
    for (const character of text) {
      this.now += 75 + this.random() * 110 + (character === ' ' ? 60 : 0);
      this.events.push({ t: Math.round(this.now), type: 'key', key: character });
      this.change((state) => put(state, character));
    }
    return this;
  }

  wheel(travel: number, notches: number, put: (state: S, dy: number) => void): this {
    for (let i = 0; i < notches; i++) {
      const dy = travel / notches;
      this.now += 70 + this.random() * 60;
      this.events.push({ t: Math.round(this.now), type: 'wheel', dy: Math.round(dy) });
      for (let k = 0; k < 3; k++) {
        this.now += 33;
        this.change((state) => put(state, dy / 3));
      }
    }
    return this;
  }

  finish(duration: number): Performance<S> {
    this.until(duration);
    return {
      duration,
      changes: this.changes,
      track: {
        format: 'vistum-pointer',
        version: 1,
        width: this.width,
        height: this.height,
        samples: this.samples,
        events: this.events,
      },
    };
  }

  private path(
    x: number,
    y: number,
    duration: number,
    onWay?: (state: S, x: number, y: number) => void,
  ) {
    const x0 = this.x;
    const y0 = this.y;
    const bow = (this.random() - 0.5) * 0.22 * (onWay ? 0.1 : 1);
    const start = this.now;
    for (let t = SAMPLE_INTERVAL; ; t += SAMPLE_INTERVAL) {
      const u = minimumJerk(Math.min(1, t / duration));
      const side = Math.sin(Math.PI * u) * bow;
      const px = x0 + (x - x0) * u - (y - y0) * side;
      const py = y0 + (y - y0) * u + (x - x0) * side;
      this.now = start + Math.min(t, duration);
      this.sample(this.now, px, py);
      if (onWay) this.change((state) => onWay(state, px, py));
      if (t >= duration) break;
    }
    this.x = x;
    this.y = y;
  }

  private sample(t: number, x: number, y: number) {
    const round = (v: number) => Math.round(v * 10) / 10;
    const last = this.samples[this.samples.length - 1]!;
    const ms = Math.round(t);
    const clampedX = round(Math.min(this.width - 1, Math.max(0, x)));
    const clampedY = round(Math.min(this.height - 1, Math.max(0, y)));
    if (ms > last[0]) this.samples.push([ms, clampedX, clampedY]);
  }
}
