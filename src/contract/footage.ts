import { Type, type Static } from '@sinclair/typebox';
import type { BedName } from '@/core/audio/bed';
import type { FootageFacts, Role } from '@/core/project/sources';
import { nullable, oneOf, Rate } from '@/core/schema/parts';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { address, route, type Bytes } from './route';

/** What a file is, as far as the project and the decoder need it. */
export const MediaFacts = Type.Object({
  kind: oneOf(['video', 'audio', 'image']),
  width: Type.Number(),
  height: Type.Number(),
  frameRate: nullable(Rate),
  variableRate: Type.Boolean(),
  duration: Type.Number({ description: 'Ticks.' }),
  hasVideo: Type.Boolean(),
  hasAudio: Type.Boolean(),
  videoCodec: nullable(Type.String()),
  audioCodec: nullable(Type.String()),
  channels: Type.Number(),
  sampleRate: Type.Number(),
  frames: Type.Optional(
    Type.Number({
      description:
        'Pictures that it has; not known of recordings that were brought before this was counted.',
    }),
  ),
  convertColor: nullable(Type.Object({ matrix: Type.String(), range: Type.String() }), {
    description:
      'Matrix and range that must be converted to BT.709 limited; null when nothing is to be done.',
  }),
});
export type MediaFacts = Readonly<Static<typeof MediaFacts>>;

/** Stands for the role of footage that was not looked at yet. */
export const UNDECIDED = 'auto';

export const FOOTAGE_STATES = ['waiting', 'ready', 'failed'] as const;
export type FootageStatus = (typeof FOOTAGE_STATES)[number];

/** What can be had of a recording to show it and play it by. */
export interface StandIns {
  readonly parts: readonly FootagePart[];
  /** Pieces that there are of a proxy that is being made. */
  readonly pieces: number;
}

/** Footage as the interface and the command line tell it. */
export interface FootageView {
  readonly id: string;
  readonly name: string;
  readonly role: Role | typeof UNDECIDED;
  readonly status: FootageStatus;
  readonly error: string | null;
  /** Sentences on what was noticed or mended. */
  readonly notes: readonly string[];
  readonly bytes: number;
  /** Null until it was looked at. */
  readonly facts: MediaFacts | null;
  /** What of its stand-ins can be had: of a recording that is being prepared not all. */
  readonly standIns: StandIns;
  readonly hasPointer: boolean;
  readonly tags: readonly string[];
  /** The part that is placed, in ticks of the recording. */
  readonly inPoint: number | null;
  readonly outPoint: number | null;
  /** The original is gone from the disk, or is not the file any more that was brought. */
  readonly trouble: 'gone' | 'changed' | null;
  /** ISO 8601. */
  readonly addedAt: string;
}

/** What `core` needs to know of footage that was looked at. */
export const factsFor = (
  { id, name }: Pick<FootageView, 'id' | 'name'>,
  role: Role,
  { kind, width, height, frameRate, duration, hasVideo, hasAudio }: MediaFacts,
): FootageFacts => ({
  ...{ id, name, role, kind, width, height, frameRate, duration, hasVideo, hasAudio },
});

/** What can be changed of footage; the file itself never is. */
export interface FootageChange {
  readonly name?: string;
  readonly role?: Role;
  readonly tags?: readonly string[];
  readonly inPoint?: number | null;
  readonly outPoint?: number | null;
}

/**
 * What came of bringing footage: its id in the project by the id that was asked for, and names of
 * what had been deleted.
 */
export interface Brought {
  readonly names: Readonly<Record<string, string>>;
  readonly restored: readonly string[];
  readonly added: readonly string[];
}

/** Footage that was added, and the job that prepares it. */
export interface Added {
  readonly footageId: string;
  readonly jobId: string;
}

/** The files of footage that can be had. */
export const FOOTAGE_PARTS = ['proxy', 'sound', 'thumbs', 'peaks', 'still'] as const;
export type FootagePart = (typeof FOOTAGE_PARTS)[number];

export const listFootage = route<readonly FootageView[]>()('GET', '/api/projects/:id/footage');
/** Sees to it that a project has footage that copied clips need. */
export const bringFootage = route<Brought, { readonly footageIds: readonly string[] }>()(
  'POST',
  '/api/projects/:id/footage/bring',
);
export const changeFootage = route<
  FootageView | null,
  FootageChange & { readonly deleted?: boolean }
>()('PATCH', '/api/footage/:id');
/** One of `FOOTAGE_PARTS`. */
export const footagePart = route<Bytes>()('GET', '/api/footage/:id/:part');
/** A piece of a proxy that is being made, by its index. */
export const footagePiece = route<Bytes>()('GET', '/api/footage/:id/pieces/:index');
/** The address of a piece of a proxy. */
export const pieceUrl = (id: string, index: number): string =>
  address(footagePiece, { id, index: String(index) });
/** The address of a file of footage. */
export const footageUrl = (id: string, part: FootagePart): string =>
  address(footagePart, { id, part });
export const readPointer = route<PointerTrack>()('GET', '/api/footage/:id/pointer');
/** Takes a pointer track, which a job reads. */
export const attachPointer = route<{ readonly jobId: string }, Blob>()(
  'POST',
  '/api/footage/:id/pointer',
);
export const bedSound = route<Bytes>()('GET', '/api/beds/:name');
export const addBed = route<Added, { readonly name: BedName }>()('POST', '/api/projects/:id/beds');

/** Where files are sent, piece by piece (tus). */
export const UPLOADS = '/api/uploads';
