import { join } from 'node:path';
import { database } from '../db/connection';
import { dataDirectory } from '../places';
import { freeDisk } from '../takes/takes';
import { folderBytes } from './sizes';

/** What the data folder takes of the disk. */
export interface DiskUsage {
  /** Bytes that can still be written. */
  readonly free: number;
  /** Bytes of each project's recordings, takes and exports, by its id; also of deleted ones. */
  readonly projects: Readonly<Record<string, number>>;
}

const FRESH_MS = 20_000;
const shared = globalThis as { vistumUsage?: { at: number; usage: Promise<DiskUsage> } };

/** The disk that projects take; counted anew when the last count is older than some seconds. */
export function diskUsage(): Promise<DiskUsage> {
  const known = shared.vistumUsage;
  if (known && Date.now() - known.at < FRESH_MS) return known.usage;
  const usage = count();
  shared.vistumUsage = { at: Date.now(), usage };
  usage.catch(() => delete shared.vistumUsage);
  return usage;
}

async function count(): Promise<DiskUsage> {
  const { footage, takes, exports } = await database();
  const projects: Record<string, number> = {};
  const kinds = [
    ['footage', footage],
    ['takes', takes],
    ['exports', exports],
  ] as const;
  for (const [folder, table] of kinds) {
    const rows = await (table as typeof footage).findAll({
      attributes: ['id', 'projectId'],
      raw: true,
    });
    for (const { id, projectId } of rows)
      projects[projectId] =
        (projects[projectId] ?? 0) + (await folderBytes(join(dataDirectory(), folder, id)));
  }
  return { free: await freeDisk(), projects };
}
