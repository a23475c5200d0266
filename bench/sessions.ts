import type { PointerEvent, PointerSample, PointerTrack } from '@/core/telemetry/pointer-track';
import type { Size } from '@/core/scale/rect';
import type { PageKind } from './pages';

/** A made session at a computer, with the pointer track that it left. */
export interface Session {
  readonly name: string;
  readonly track: PointerTrack;
  readonly seconds: number;
  /** What stands on the screen meanwhile. */
  readonly shows: PageKind;
}

type Spot = readonly [x: number, y: number];

/**
 * Draws a track as a person would make it: a hand that curves and shakes, at 60 samples a second.
 */
class Hand {
  private readonly samples: PointerSample[] = [];
  private readonly events: PointerEvent[] = [];
  private t = 0;
  private x: number;
  private y: number;
  private state: number;

  constructor(
    private readonly size: Size,
    seed: number,
  ) {
    this.state = seed;
    this.x = size.width / 2;
    this.y = size.height / 2;
    this.sample();
  }

  /** The same numbers for the same seed (Park and Miller's generator), 0 to 1. */
  chance(): number {
    this.state = (this.state * 48_271) % 2_147_483_647;
    return this.state / 2_147_483_647;
  }

  between = (low: number, high: number): number => low + (high - low) * this.chance();

  private sample(): void {
    this.samples.push([
      Math.round(this.t),
      Math.min(this.size.width - 1, Math.max(0, this.x)),
      Math.min(this.size.height - 1, Math.max(0, this.y)),
    ]);
  }

  wait(ms: number): this {
    this.t += ms;
    return this;
  }

  /** Moves to a spot, as shares of the screen, on a slight curve. */
  go([sx, sy]: Spot, ms = this.between(350, 800)): this {
    const [x0, y0] = [this.x, this.y];
    const x = sx * (this.size.width - 1);
    const y = sy * (this.size.height - 1);
    const bend = this.between(-0.08, 0.08);
    const steps = Math.max(2, Math.round(ms / 16.7));
    for (let i = 1; i <= steps; i++) {
      const u = (i / steps) ** 2 * (3 - (2 * i) / steps);
      const aside = bend * Math.sin(Math.PI * u);
      this.x = x0 + (x - x0) * u + (y - y0) * aside;
      this.y = y0 + (y - y0) * u - (x - x0) * aside;
      this.t += ms / steps;
      this.sample();
    }
    return this;
  }

  press(): this {
    this.events.push({ t: Math.round(this.wait(120).t), type: 'down', button: 0 });
    this.events.push({ t: Math.round(this.wait(80).t), type: 'up', button: 0 });
    return this;
  }

  type(letters: number): this {
    for (let i = 0; i < letters; i++)
      this.events.push({
        ...{ t: Math.round(this.wait(this.between(80, 190)).t), type: 'key', key: 'a' },
      });
    return this;
  }

  scroll(notches: number): this {
    for (let i = 0; i < notches; i++)
      this.events.push({
        t: Math.round(this.wait(this.between(60, 220)).t),
        type: 'wheel',
        dy: 90,
      });
    return this;
  }

  drag(to: Spot, ms: number): this {
    this.events.push({ t: Math.round(this.wait(120).t), type: 'down', button: 0 });
    this.go(to, ms);
    this.events.push({ t: Math.round(this.wait(60).t), type: 'up', button: 0 });
    return this;
  }

  /** Small aimless moves about where it is. */
  fidget(ms: number, reach: number): this {
    const end = this.t + ms;
    const [x, y] = [this.x / this.size.width, this.y / this.size.height];
    while (this.t < end)
      this.go(
        [x + this.between(-reach, reach), y + this.between(-reach, reach)],
        this.between(200, 700),
      ).wait(this.between(100, 900));
    return this;
  }

  /** How long it takes, with a while after the last that is done. */
  get seconds(): number {
    return this.t / 1000 + 3;
  }

  done(name: string, shows: PageKind): Session {
    const { width, height } = this.size;
    const { samples, events } = this;
    return {
      name,
      track: { format: 'vistum-pointer', version: 1, width, height, samples, events },
      seconds: this.seconds,
      shows,
    };
  }
}

const LARGE: Size = { width: 3840, height: 2160 };
const USUAL: Size = { width: 2560, height: 1440 };

function form(): Session {
  const hand = new Hand(USUAL, 11).wait(3000);
  for (let row = 0; row < 9; row++)
    hand
      .go([0.42, 0.24 + row * 0.06])
      .press()
      .wait(300)
      .type(hand.between(5, 22))
      .wait(500);
  return hand.go([0.62, 0.86]).press().wait(4000).done('form', 'form');
}

function menus(): Session {
  const hand = new Hand(USUAL, 12).wait(2500);
  for (let i = 0; i < 14; i++) {
    const x = hand.between(0.02, 0.3);
    hand.go([x, 0.02]).press().wait(500);
    hand.go([x + 0.03, hand.between(0.08, 0.4)], 500).press();
    if (i % 3 === 2)
      hand
        .go([hand.between(0.3, 0.8), hand.between(0.3, 0.8)])
        .press()
        .wait(2000);
    hand.wait(hand.between(700, 3000));
  }
  return hand.done('menus', 'editor');
}

function drawing(): Session {
  const hand = new Hand(LARGE, 13).wait(3000);
  for (let i = 0; i < 22; i++)
    hand
      .go([hand.between(0.35, 0.7), hand.between(0.3, 0.7)])
      .drag([hand.between(0.35, 0.7), hand.between(0.3, 0.7)], hand.between(500, 1800))
      .wait(hand.between(200, 900));
  return hand.wait(3000).done('drawing', 'canvas');
}

function reading(): Session {
  const hand = new Hand(USUAL, 14).wait(1000).go([0.3, 0.2]);
  for (let i = 0; i < 8; i++)
    hand.fidget(6500, 0.03).go([hand.between(0.2, 0.6), hand.between(0.2, 0.8)]);
  return hand.done('reading, fidgeting', 'editor');
}

function dragging(): Session {
  const hand = new Hand(USUAL, 15).wait(2500);
  for (let i = 0; i < 10; i++)
    hand
      .go([0.08, hand.between(0.2, 0.8)])
      .drag([hand.between(0.5, 0.95), hand.between(0.2, 0.8)], 1400)
      .wait(hand.between(800, 3500));
  return hand.done('dragging across', 'canvas');
}

function scrolling(): Session {
  const hand = new Hand(USUAL, 16).wait(2000);
  for (let i = 0; i < 9; i++) {
    hand.go([hand.between(0.4, 0.6), hand.between(0.4, 0.7)]).scroll(9);
    hand.wait(hand.between(1500, 4000));
    if (i % 3 === 1)
      hand
        .go([0.5, hand.between(0.3, 0.6)])
        .press()
        .wait(1500);
  }
  return hand.done('scrolling', 'editor');
}

function typingFar(): Session {
  const hand = new Hand(LARGE, 17).wait(3000);
  for (let i = 0; i < 8; i++)
    hand
      .go([0.2, 0.25 + (i % 4) * 0.03])
      .press()
      .go([0.85, 0.8])
      .type(30)
      .wait(hand.between(800, 3000));
  return hand.done('typing far from the pointer', 'editor');
}

function corners(): Session {
  const hand = new Hand(USUAL, 18).wait(3000);
  for (let i = 0; i < 18; i++)
    hand
      .go(i % 2 ? [hand.between(0.03, 0.12), 0.08] : [hand.between(0.88, 0.97), 0.92])
      .press()
      .wait(hand.between(600, 1500));
  return hand.wait(2000).done('two windows at far corners', 'windows');
}

function monitors(): Session {
  const hand = new Hand({ width: 5760, height: 1080 }, 19).wait(3000);
  for (let i = 0; i < 20; i++) {
    const monitor = Math.floor(i / 5) % 3;
    hand
      .go([(monitor + hand.between(0.15, 0.85)) / 3, hand.between(0.15, 0.85)])
      .press()
      .wait(hand.between(900, 3200));
  }
  return hand.done('three monitors', 'monitors');
}

function hour(): Session {
  const hand = new Hand(LARGE, 20).wait(4000);
  const end = 3600;
  for (let i = 0; hand.seconds < end; i++) {
    const spot: Spot = [hand.between(0.1, 0.9), hand.between(0.1, 0.9)];
    const near = (): Spot => [
      spot[0] + hand.between(-0.06, 0.06),
      spot[1] + hand.between(-0.06, 0.06),
    ];
    for (let k = 0; k < 4; k++) hand.go(near()).press().wait(hand.between(700, 2500));
    if (i % 2) hand.type(25);
    if (i % 5 === 4) hand.fidget(9000, 0.02);
    hand.wait(hand.between(1500, 9000));
  }
  return hand.done('an hour', 'editor');
}

/** Ten sessions of different characters; the same each time. */
export const sessions = (): Session[] => [
  ...[form(), menus(), drawing(), reading(), dragging()],
  ...[scrolling(), typingFar(), corners(), monitors(), hour()],
];
