import { join } from 'node:path';
import type { DiskUsage } from '@/contract/disk';
import { database } from '../db/connection';
import { ownedTables } from '../db/owned';
import { dataDirectory } from '../places';
import { freeDisk } from '../takes/takes';
import { bytesOf, filesIn } from './sizes';

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
  const all = new Map<string, number>();
  const ofProject = new Map<string, Map<string, number>>();
  for (const { folder, table } of ownedTables(await database())) {
    const rows = await table.findAll({ attributes: ['id', 'projectId'], raw: true });
    for (const { id, projectId } of rows) {
      const own = ofProject.get(projectId) ?? new Map<string, number>();
      ofProject.set(projectId, own);
      for (const [file, size] of await filesIn(join(dataDirectory(), folder, id))) {
        own.set(file, size);
        all.set(file, size);
      }
    }
  }
  const projects = Object.fromEntries([...ofProject].map(([id, own]) => [id, bytesOf(own)]));
  return { free: await freeDisk(), used: bytesOf(all), projects };
}
