import type { KernelExports } from './exports';

const PAGE = 65536;
const ALIGN = 64;

/**
 * Memory of the kernels: blocks by size, reused when freed. Views are made anew
 * at each use, since growing the memory detaches old ones.
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
    const length = Math.ceil((size + ALIGN) / ALIGN) * ALIGN;
    const reused = this.free.get(length)?.pop();
    if (reused !== undefined) return reused;
    const address = this.top;
    this.top += length;
    const { memory } = this.exports;
    if (this.top > memory.buffer.byteLength) memory.grow(Math.ceil((this.top - memory.buffer.byteLength) / PAGE));
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

  /** The bytes at an address; valid until the next `allocate`. */
  bytes(address: number, length: number): Uint8Array {
    return new Uint8Array(this.exports.memory.buffer, address, length);
  }

  /** Copies bytes in and answers their address. */
  put(data: ArrayBufferView): number {
    const address = this.allocate(data.byteLength);
    this.bytes(address, data.byteLength).set(new Uint8Array(data.buffer, data.byteOffset, data.byteLength));
    return address;
  }

  /** Copies rows within the memory. */
  copyRows(source: number, sourceStride: number, target: number, targetStride: number, width: number, rows: number): void {
    const all = new Uint8Array(this.exports.memory.buffer);
    for (let row = 0; row < rows; row++) {
      const from = source + row * sourceStride;
      all.copyWithin(target + row * targetStride, from, from + width);
    }
  }
}
