import { Type } from '@sinclair/typebox';
import { MediaFacts, UNDECIDED, type FootageView } from '@/contract/footage';
import { ROLES } from '@/core/project/sources';
import type { FootageRow } from '../models';
import { isoOf, jsonOr, wholeOr, wordOr } from '../stored';

/** A recording as the database has it. */
export interface Footage extends Omit<FootageView, 'trouble' | 'standIns'> {
  readonly projectId: string;
  /** Name of the original among the footage's files. */
  readonly file: string;
  readonly deleted: boolean;
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
