import { join } from 'node:path';
import type { FootageRow } from '../db/models';
import { dataFolder } from '../places';

/** The folder that holds a recording and what was made from it. */
export const footageFolder = (id: string): string => dataFolder('footage', id);

/** The recording as it was brought; never written to. */
export const originalPath = (row: Pick<FootageRow, 'id' | 'file'>): string =>
  join(footageFolder(row.id), row.file);

/** Where the pointer track of a recording lies. */
export const trackPath = (id: string): string => join(footageFolder(id), 'pointer.json');
