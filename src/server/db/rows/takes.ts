import { Type, type TSchema } from '@sinclair/typebox';
import type { TakeView } from '@/contract/takes';
import { TakeSetup } from '@/core/take/setup';
import { END_REASONS, TAKE_KINDS, type TrackName } from '@/core/take/take';
import type { TakeRow } from '../models';
import { isoOf, jsonOr, wordOr } from '../stored';

/** A take as the database has it; one that can't be read any more has no tracks. */
export interface Take extends Omit<TakeView, 'live'> {
  readonly projectId: string;
  /** When the recording tab was last heard of, ms since 1970. */
  readonly seenAt: number;
}

const NO_SETUP: TakeSetup = {
  tracks: [],
  area: null,
  gain: 0,
  camera: { mirror: false, brightness: 0, contrast: 1, area: null },
  hold: null,
  layout: 'corner',
};

/** What there may be of each of a take's tracks. */
export const byTrack = <S extends TSchema>(of: S) =>
  Type.Partial(
    Type.Object({
      ...{ screen: of, camera: of, voice: of, computer: of },
    } satisfies Record<TrackName, S>),
  );

const Made = byTrack(Type.String());

/** A row of takes as what it stands for. */
export const takeOf = (row: TakeRow): Take => ({
  id: row.id,
  projectId: row.projectId,
  stepId: row.stepId,
  kind: wordOr(TAKE_KINDS, row.kind, 'all'),
  number: row.number,
  status: row.status,
  reason: wordOr(END_REASONS, row.reason, null),
  seconds: row.seconds,
  setup: jsonOr(TakeSetup, row.setup, NO_SETUP),
  footage: jsonOr(Made, row.footage, {}),
  seenAt: row.seenAt,
  madeAt: isoOf(row.createdAt),
});

/** How a take was set up, as the row's cell has it. */
export const setupCell = (setup: TakeSetup): string => JSON.stringify(setup);

/** The footage that was made of a take, as the row's cell has it. */
export const madeCell = (footage: Take['footage']): string => JSON.stringify(footage);
