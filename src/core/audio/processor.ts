import { assertNever } from '../assert-never';
import { tameClipping, type Stereo } from './mix';

/** Something that changes sound as it passes, sample after sample. */
export interface Processor {
  /** Its output lags behind its input by so many samples. */
  readonly latency: number;
  /** So many samples of input before a place have a say in what comes out there. */
  readonly settle: number;
  /** Forgets what it heard; what comes next begins at a timeline sample. */
  readonly reset: (at: number) => void;
  /** Changes a block in place; blocks may be of any length. */
  readonly process: (block: Stereo) => void;
}

/** A processor as data, in a plan. */
export type ProcessorSpec =
  /** Bends what is too loud below full scale. */
  { readonly kind: 'tame' };

/** The processor that a plan asks for. */
export function makeProcessor({ kind }: ProcessorSpec): Processor {
  switch (kind) {
    case 'tame':
      return { latency: 0, settle: 0, reset: () => undefined, process: tameClipping };
    default:
      return assertNever(kind);
  }
}

/** Gives samples of sound from a timeline sample on. */
export type Pull = (at: number, count: number) => Promise<Stereo>;

/**
 * Processors one after the other. What comes out for a stretch is the same whatever was asked for
 * before, and in whatever blocks: after a jump the time is run first that the processors need to
 * settle, and what they are late by is made up for.
 */
export class Chain {
  private readonly latency: number;
  private readonly settle: number;
  /** The sample that comes out next without a jump. */
  private next: number | null = null;

  constructor(
    private readonly processors: readonly Processor[],
    private readonly pull: Pull,
  ) {
    this.latency = processors.reduce((sum, p) => sum + p.latency, 0);
    this.settle = processors.reduce((sum, p) => sum + p.settle, 0);
  }

  /** What comes out from a timeline sample on. */
  readonly read: Pull = async (at, count) => {
    if (this.next !== at) await this.jump(at);
    this.next = null;
    const block = await this.pass(at + this.latency, count);
    this.next = at + count;
    return block;
  };

  private async jump(at: number): Promise<void> {
    for (const processor of this.processors) processor.reset(at - this.settle);
    const lead = this.settle + this.latency;
    if (lead) await this.pass(at - this.settle, lead);
  }

  private async pass(at: number, count: number): Promise<Stereo> {
    const block = await this.pull(at, count);
    for (const processor of this.processors) processor.process(block);
    return block;
  }
}
