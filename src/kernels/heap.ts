import type { KernelExports } from './exports';

const PAGE = 65536;
const ALIGN = 64;
/**
 * Sizes of blocks between one power of two and the next: few enough for blocks to be found again,
 * at most an eighth too large.
 */
const STEPS = 8;

/** A block that is given back where the scope ends that holds it by `using`. */
export interface Block extends Disposable {
  readonly at: number;
}

/** The size of the block that holds `size` bytes. */
function blockSize(size: number): number {
  const step = Math.max(ALIGN, 2 ** Math.floor(Math.log2(size)) / STEPS);
  return Math.ceil(size / step) * step;
}

/**
 * Memory of the kernels: blocks of a few sizes, reused when freed, so that it stays flat whatever
 * sizes are asked for in turn. Views are made anew at each use, since growing the memory detaches
 * old ones.
 */
export class KernelHeap {
  private top: number;
  private readonly free = new Map<number, number[]>();
  private readonly sizes = new Map<number, number>();

  constructor(readonly exports: KernelExports) {
    this.top = Math.ceil(exports.heapBase() / ALIGN) * ALIGN;
  }

  /** Compiles and starts a module from its bytes. */
  static async load(bytes: BufferSource): Promise<KernelHeap> {
    const { instance } = await WebAssembly.instantiate(bytes, {});
    return new KernelHeap(instance.exports as unknown as KernelExports);
  }

  /** Address of a block of at least `size` bytes; its contents are whatever was there. */
  allocate(size: number): number {
    const length = blockSize(size + ALIGN);
    const reused = this.free.get(length)?.pop();
    if (reused !== undefined) return reused;
    const address = this.top;
    this.top += length;
    const { memory } = this.exports;
    const lacking = this.top - memory.buffer.byteLength;
    // In large steps: each detaches the views that are there, and counts as a new buffer for the
    // collector of garbage.
    if (lacking > 0) memory.grow(Math.ceil(Math.max(lacking, memory.buffer.byteLength / 4) / PAGE));
    this.sizes.set(address, length);
    return address;
  }

  /** Gives a block back; its address must come from `allocate`. */
  release(address: number): void {
    const length = this.sizes.get(address);
    if (length === undefined) throw new Error('That address was not allocated.');
    const list = this.free.get(length);
    if (list) list.push(address);
    else this.free.set(length, [address]);
  }

  /** A block of at least `size` bytes for as long as a scope lasts, however it is left. */
  borrow(size: number): Block {
    const at = this.allocate(size);
    return { at, [Symbol.dispose]: () => this.release(at) };
  }

  /** Bytes that are copied in, for as long as a scope lasts. */
  lend(data: ArrayBufferView): Block {
    const at = this.put(data);
    return { at, [Symbol.dispose]: () => this.release(at) };
  }

  /** The bytes at an address; valid until the next `allocate`. */
  bytes(address: number, length: number): Uint8Array {
    return new Uint8Array(this.exports.memory.buffer, address, length);
  }

  /** Copies bytes in and answers their address. */
  put(data: ArrayBufferView): number {
    const address = this.allocate(data.byteLength);
    this.bytes(address, data.byteLength).set(
      new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
    );
    return address;
  }
}
