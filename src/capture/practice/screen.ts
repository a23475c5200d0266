import { HEIGHT, WIDTH } from '@/practice/kilnbook';
import { Kilnbook, type PointerShape } from '@/practice/operate';
import { pictureSource } from './generator';
import type { ScreenMessage } from './screen-worker';

/** What a person does on the practice screen, in its pixels. */
export type ScreenAction =
  | { readonly type: 'pointer'; readonly x: number; readonly y: number }
  | { readonly type: 'down' | 'up'; readonly button: number }
  | { readonly type: 'wheel'; readonly dy: number }
  | { readonly type: 'key'; readonly key: string }
  | { readonly type: 'shape'; readonly shape: PointerShape };

/** A screen with a working Kilnbook on it. It shows no pointer; where that is, is told exactly. */
export class PracticeScreen {
  readonly track: MediaStreamTrack;
  private readonly worker = new Worker(new URL('./screen-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly book = new Kilnbook();
  private readonly listeners = new Set<(action: ScreenAction, at: number) => void>();
  private shape: PointerShape = 'arrow';
  private place = { x: 0, y: 0 };

  constructor(readonly size: { readonly width: number; readonly height: number }) {
    this.track = pictureSource(this.worker, {
      size,
      fonts: new URL('/fonts/picture-latin.woff2', location.href).href,
      state: this.book.state,
    } satisfies ScreenMessage);
    this.place = { x: size.width / 2, y: size.height / 2 };
  }

  /** Kilnbook pixels for one of the screen's. */
  private get scale(): number {
    return 1 / Math.min(this.size.width / WIDTH, this.size.height / HEIGHT);
  }

  onAction(listener: (action: ScreenAction, at: number) => void): () => void {
    this.listeners.add(listener);
    listener({ type: 'pointer', ...this.place }, performance.now());
    return () => this.listeners.delete(listener);
  }

  private tell(action: ScreenAction, at: number): void {
    for (const listener of this.listeners) listener(action, at);
  }

  private show(): void {
    this.worker.postMessage({ state: this.book.state } satisfies ScreenMessage);
  }

  move(x: number, y: number, at: number): PointerShape {
    this.place = { x, y };
    this.tell({ type: 'pointer', x, y }, at);
    const before = JSON.stringify(this.book.state);
    const shape = this.book.move(x * this.scale, y * this.scale);
    if (shape !== this.shape) {
      this.shape = shape;
      this.tell({ type: 'shape', shape }, at);
    }
    if (JSON.stringify(this.book.state) !== before) this.show();
    return shape;
  }

  press(x: number, y: number, button: number, at: number): void {
    this.move(x, y, at);
    this.tell({ type: 'down', button }, at);
    if (button === 0) this.book.press(x * this.scale, y * this.scale);
    this.show();
  }

  release(button: number, at: number): void {
    this.tell({ type: 'up', button }, at);
    this.book.release();
  }

  wheel(dy: number, at: number): void {
    this.tell({ type: 'wheel', dy }, at);
    this.book.wheel(dy * this.scale);
    this.show();
  }

  /** Answers whether the key was of use here. */
  key(name: string, at: number): boolean {
    if (!this.book.key(name)) return false;
    this.tell({ type: 'key', key: name }, at);
    this.show();
    return true;
  }

  /** Where the pointer is. */
  get pointer(): { x: number; y: number } {
    return this.place;
  }

  /** Flashes white at a time, in milliseconds since 1970. */
  flash(flashAt: number): void {
    this.worker.postMessage({ flashAt } satisfies ScreenMessage);
  }

  stop(): void {
    this.track.stop();
    this.worker.terminate();
  }
}
