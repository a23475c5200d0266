import type { Transaction } from 'sequelize';
import type { JobType } from '@/contract/jobs';
import type { Provenance } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import type { FootageRow } from '../db/models';
import type { ServerContext } from '../context';
import type { Attempt } from '../jobs/work';

/** What an analysis is made of. */
export interface AnalysisInput {
  readonly footage: FootageRow;
  readonly facts: MediaFacts;
  /** The recording itself. */
  readonly path: string;
  /** What was asked for, as JSON; empty where there is one thing to ask only. */
  readonly parameters: string;
  /** Where the result is to be written, as one whole file. */
  readonly target: string;
  /** Tells lists what is known by now, while it runs. */
  readonly tell: (summary: Analysed['summary']) => Promise<void>;
}

/** What came of an analysis, beside the file with its result. */
export interface Analysed {
  /** A few numbers for lists; small. */
  readonly summary: Readonly<Record<string, unknown>>;
  readonly provenance: Provenance;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
  /** Sentences on what was mended or is odd. */
  readonly notes: readonly string[];
}

/**
 * Something that is found out about a recording by computing. The mathematics is in `core`; what is
 * here reads the recording and writes the result.
 */
export interface AnalysisKind {
  /**
   * Rises when the result changes for the same recording: older ones are made anew when asked for.
   */
  readonly version: number;
  /** What the recording has to have. */
  readonly needs: 'picture' | 'sound';
  /**
   * Whether the same recording always gives the same, so that a result can serve for its copies.
   */
  readonly repeatable: boolean;
  /** The queue that it waits in, where that is not the one of all analyses. */
  readonly job?: JobType;
  /** The most that it may take, in seconds. */
  readonly seconds: () => number;
  readonly run: (
    context: ServerContext,
    input: AnalysisInput,
    attempt: Attempt,
  ) => Promise<Analysed>;
  /**
   * What a result changes beside its own row, in the transaction that its job ends with.
   *
   * @param part the file with the result
   */
  readonly keep?: (
    context: ServerContext,
    footageId: string,
    part: string,
    transaction: Transaction,
  ) => Promise<void>;
  /** Clears up what a failed or cancelled one leaves behind in the footage's folder. */
  readonly clear?: (context: ServerContext, footageId: string) => Promise<void>;
}
