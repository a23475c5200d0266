import type { DiskUsage } from '@/contract/disk';
import type { ServerContext } from '../context';
import { ownedTables } from './owned';
import { freeDisk } from '../takes/takes';

const FRESH_MS = 20_000;
const shared = globalThis as { vistumUsage?: { at: number; usage: Promise<DiskUsage> } };

/** The disk that projects take; counted anew when the last count is older than some seconds. */
export function diskUsage(context: ServerContext): Promise<DiskUsage> {
  const known = shared.vistumUsage;
  if (known && Date.now() - known.at < FRESH_MS) return known.usage;
  const usage = count(context);
  shared.vistumUsage = { at: Date.now(), usage };
  usage.catch(() => delete shared.vistumUsage);
  return usage;
}

/** Bytes of files together, each counted once. */
const bytesOf = (files: ReadonlyMap<string, number>): number =>
  [...files.values()].reduce((sum, size) => sum + size, 0);

async function count(context: ServerContext): Promise<DiskUsage> {
  const all = new Map<string, number>();
  const ofProject = new Map<string, Map<string, number>>();
  for (const { store, files, table } of ownedTables(context)) {
    const rows = await table.findAll({ attributes: ['id', 'projectId'], raw: true });
    for (const { id, projectId } of rows) {
      const own = ofProject.get(projectId) ?? new Map<string, number>();
      ofProject.set(projectId, own);
      for (const [file, size] of await store.sizes(`${files}/${id}`)) {
        own.set(file, size);
        all.set(file, size);
      }
    }
  }
  const projects = Object.fromEntries([...ofProject].map(([id, own]) => [id, bytesOf(own)]));
  return { free: await freeDisk(), used: bytesOf(all), projects };
}
