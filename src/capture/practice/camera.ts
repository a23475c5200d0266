import type { CameraMessage } from './camera-worker';
import { pictureSource } from './generator';

/** A camera that sees the made presenter before a green wall. */
export class PracticeCamera {
  readonly track: MediaStreamTrack;
  private readonly worker = new Worker(new URL('./camera-worker.ts', import.meta.url), {
    type: 'module',
  });

  constructor(size: { width: number; height: number }, frameRate: number) {
    this.track = pictureSource(this.worker, { size, frameRate } satisfies CameraMessage);
  }

  /** Flashes white at a time, in milliseconds since 1970. */
  flash(flashAt: number): void {
    this.worker.postMessage({ flashAt } satisfies CameraMessage);
  }

  stop(): void {
    this.track.stop();
    this.worker.postMessage({ stop: true } satisfies CameraMessage);
    this.worker.terminate();
  }
}
