import type { PieceTaken } from '@/contract/takes';
import type { PartStore } from './part-store';

const MOST_AT_ONCE = 4 << 20;
const RETRY_MS = 1000;

/** How the server stands towards a recording. */
export type ServerState = 'here' | 'away' | 'full' | 'ended';

/** Sends what a store holds to the server, piece by piece and in order, for as long as it takes. */
export class Uploader {
  private sent = 0;
  private busy: Promise<void> | null = null;
  private again = false;
  private stopped = false;

  constructor(
    private readonly address: string,
    private readonly store: PartStore,
    private readonly onState: (state: ServerState, free: number | null) => void,
  ) {}

  /** Bytes that the server has not confirmed. */
  get waiting(): number {
    return this.store.size - this.sent;
  }

  /** Nothing more is sent. */
  get ended(): boolean {
    return this.stopped;
  }

  /** Begins to send from a place that the server is known to be at. */
  from(size: number): void {
    this.sent = size;
  }

  /** Sends what is new; calls while it is at it are remembered. */
  push(): void {
    this.again = true;
    this.busy ??= this.run().finally(() => {
      this.busy = null;
      if (this.again && !this.stopped) this.push();
    });
  }

  stop(): void {
    this.stopped = true;
  }

  private async run(): Promise<void> {
    while (!this.stopped && (this.again || this.waiting > 0)) {
      this.again = false;
      if (this.waiting <= 0) return;
      const piece = this.store.read(this.sent, MOST_AT_ONCE);
      const response = await fetch(this.address, {
        method: 'PATCH',
        headers: { 'upload-offset': String(this.sent), 'content-type': 'application/octet-stream' },
        body: piece,
      }).catch(() => null);
      if (response?.ok) {
        const { size, free } = (await response.json()) as PieceTaken;
        this.sent = size;
        this.onState('here', free);
        continue;
      }
      if (response?.status === 410) {
        // The take was closed from elsewhere: nothing more is taken.
        this.stopped = true;
        this.onState('ended', null);
        return;
      }
      this.onState(response?.status === 507 ? 'full' : 'away', null);
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
      this.again = true;
    }
  }
}
