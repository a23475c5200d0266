import { join } from 'node:path';
import { originalFile, sentTrack, trackFile } from '../footage/names';
import { dataDirectory, dataFolder } from '../places';

/** The folder in which the store has what belongs to a recording. */
export const footageFolder = (id: string): string => dataFolder('footage', id);

/** Where the store has a recording. */
export const originalPath = (row: { id: string; file: string }): string =>
  join(dataDirectory(), originalFile(row));

/** Where the store has the pointer track of a recording. */
export const trackPath = (id: string): string => join(dataDirectory(), trackFile(id));

/** Where the store has a pointer track that was sent. */
export const sentTrackPath = (id: string): string => join(dataDirectory(), sentTrack(id));
