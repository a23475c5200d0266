import type { SourceFrame } from '@/compositor/source-frame';
import type { VideoLayer } from '@/core/frame/plan';
import type { FootageFacts, Preparing, Sources } from '@/core/project/sources';
import { pieceAt } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { ClipReader } from './clip-reader';

/**
 * Where the picture of a recording at a time in seconds is read from: the whole proxy, or a piece
 * of it while it is being made; null where there is none yet.
 */
export function standInAt(
  footage: FootageFacts | undefined,
  preparing: Preparing | undefined,
  seconds: number,
): { readonly index: number | null; readonly seconds: number } | null {
  if (!preparing) return { index: null, seconds };
  if (!footage?.frameRate) return null;
  const piece = pieceAt(seconds, footage.frameRate);
  return piece.index < preparing.pieces ? piece : null;
}

/** Reads recordings for what is measured, apart from those that play and would be sent to and fro. */
export class ApartReaders implements Disposable {
  private readonly readers = new Map<string, ClipReader>();

  constructor(
    private readonly heap: KernelHeap,
    private readonly sources: Sources,
  ) {}

  /** The picture of a layer at its time; null where it can't be had, or not yet. */
  async read({ clipId, footageId, time }: VideoLayer): Promise<SourceFrame | null> {
    const { footage, preparing } = this.sources;
    const part = standInAt(footage[footageId], preparing?.[footageId], ticksToSeconds(time));
    if (!part) return null;
    const open = () => new ClipReader(this.heap, footageId, part.index);
    return this.reader(`${clipId} ${part.index}`, open)
      .frameAt(part.seconds)
      .catch(() => null);
  }

  /** The picture of a layer's matte at its time; null where it has none. */
  async readMatte({ footageId, matteId, time }: VideoLayer): Promise<SourceFrame | null> {
    if (!matteId) return null;
    const open = () => new ClipReader(this.heap, footageId, null, matteId);
    return this.reader(matteId, open)
      .frameAt(ticksToSeconds(time))
      .catch(() => null);
  }

  [Symbol.dispose](): void {
    for (const reader of this.readers.values()) reader.close();
  }

  private reader(name: string, open: () => ClipReader): ClipReader {
    const known = this.readers.get(name) ?? open();
    this.readers.set(name, known);
    return known;
  }
}
