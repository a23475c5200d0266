import { Type } from '@sinclair/typebox';
import { MediaFacts, UNDECIDED, type FootageStatus } from '@/contract/footage';
import { ROLES, type Role } from '@/core/project/sources';
import type { FootageRow } from '../models';
import { isoOf, jsonOr, wholeOr, wordOr } from '../stored';

/** A recording as the database has it. */
export interface Footage {
  readonly id: string;
  readonly projectId: string;
  readonly name: string;
  readonly role: Role | typeof UNDECIDED;
  readonly status: FootageStatus;
  readonly error: string | null;
  /** Sentences on what was noticed or mended. */
  readonly notes: readonly string[];
  /** Name of the original in the footage's folder. */
  readonly file: string;
  readonly bytes: number;
  /** Null until it was looked at. */
  readonly facts: MediaFacts | null;
  readonly hasPointer: boolean;
  readonly tags: readonly string[];
  /** The part that is placed, in ticks of the recording. */
  readonly inPoint: number | null;
  readonly outPoint: number | null;
  readonly deleted: boolean;
  /** ISO 8601. */
  readonly addedAt: string;
}

const Sentences = Type.Array(Type.String());

/** What a recording is, once it was looked at. */
export const mediaFactsOf = (row: Pick<FootageRow, 'facts'>): MediaFacts | null =>
  jsonOr(MediaFacts, row.facts, null);

/** The role of a recording. */
export const roleOf = (row: Pick<FootageRow, 'role'>): Footage['role'] =>
  wordOr(ROLES, row.role, UNDECIDED);

/** A row of footage as what it stands for. */
export const footageOf = (row: FootageRow): Footage => ({
  id: row.id,
  projectId: row.projectId,
  name: row.name,
  role: roleOf(row),
  status: row.status,
  error: row.error,
  notes: jsonOr(Sentences, row.notes, []),
  file: row.file,
  bytes: row.bytes,
  facts: mediaFactsOf(row),
  hasPointer: row.hasPointer,
  tags: jsonOr(Sentences, row.tags, []),
  inPoint: wholeOr(row.inPoint, null),
  outPoint: wholeOr(row.outPoint, null),
  deleted: row.deletedAt !== null,
  addedAt: isoOf(row.createdAt),
});

/** What is given of footage, as the row's cells have it. */
export const footageCells = ({
  notes,
  facts,
  tags,
}: Partial<Pick<Footage, 'notes' | 'facts' | 'tags'>>) => ({
  ...(notes && { notes: JSON.stringify(notes) }),
  ...(facts && { facts: JSON.stringify(facts) }),
  ...(tags && { tags: JSON.stringify(tags) }),
});
