import { route } from './route';

export interface DiskUsage {
  /** Bytes that can still be written. */
  readonly free: number;
  /** Bytes of all projects together; what copies share counts once. */
  readonly used: number;
  /** Bytes of each project's recordings, takes and exports, by its id; also of deleted ones. */
  readonly projects: Readonly<Record<string, number>>;
}

/** What can be deleted, listed as such, and brought back. */
export const DELETED_KINDS = ['project', 'footage', 'take'] as const;
export type DeletedKind = (typeof DELETED_KINDS)[number];

/** Something that was deleted and can still be brought back. */
export interface Deleted {
  readonly kind: DeletedKind;
  readonly id: string;
  readonly name: string;
  /** Id and name of the project that it belongs to; of a project, its own. */
  readonly projectId: string;
  readonly projectName: string;
  /** ISO 8601. */
  readonly deletedAt: string;
  /** When it will be deleted for good, ISO 8601. */
  readonly purgeAt: string;
}

export const freeDisk = route<{ readonly free: number }>()('GET', '/api/disk');
/** The disk that each project takes. */
export const diskUsage = route<DiskUsage>()('GET', '/api/disk/projects');
/** What was deleted and can be brought back. */
export const listDeleted = route<readonly Deleted[]>()('GET', '/api/deleted');
export const bringBack = route<null, Pick<Deleted, 'kind' | 'id'>>()('POST', '/api/deleted');
