import { address } from '@/contract/route';
import { addPiece } from '@/contract/takes';
import type { PartStore } from './part-store';
import { Uploader, type ServerState } from './uploader';

/** Small pieces are put together for so long before they are written. */
const GATHER_MS = 200;
const GATHER_BYTES = 1 << 18;

/** One file of a recording under way: kept here first, then sent. */
export class Part {
  private readonly uploader: Uploader;
  private gathered: Uint8Array[] = [];
  private gatheredBytes = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    readonly name: string,
    private readonly store: PartStore,
    takeId: string,
    onState: (state: ServerState, free: number | null) => void,
    private readonly onFull: () => void,
  ) {
    this.uploader = new Uploader(address(addPiece, { id: takeId, name }), store, onState);
  }

  get bytes(): number {
    return this.store.size + this.gatheredBytes;
  }

  /** Bytes that the server has not confirmed. */
  get waiting(): number {
    return this.uploader.waiting + this.gatheredBytes;
  }

  add(bytes: Uint8Array): void {
    if (!bytes.length) return;
    this.gathered.push(bytes);
    this.gatheredBytes += bytes.length;
    if (this.gatheredBytes > GATHER_BYTES) this.flush();
    else this.timer ??= setTimeout(() => this.flush(), GATHER_MS);
  }

  /** Writes what was gathered, and lets it be sent. */
  flush(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    if (!this.gatheredBytes) return;
    const all = new Uint8Array(this.gatheredBytes);
    let at = 0;
    for (const piece of this.gathered) {
      all.set(piece, at);
      at += piece.length;
    }
    this.gathered = [];
    this.gatheredBytes = 0;
    try {
      this.store.append(all);
    } catch {
      this.onFull();
      return;
    }
    this.uploader.push();
  }

  close(): void {
    if (this.timer) clearTimeout(this.timer);
    this.uploader.stop();
    this.store.close();
  }
}
