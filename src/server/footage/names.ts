import type { Footage } from '../db/rows/footage';

/** The name in the store below which all of a recording lies: it, and what was made from it. */
export const footageFiles = (id: string): string => `footage/${id}`;

/** The name of what was made from a recording. */
export const footageFile = (id: string, file: string): string => `${footageFiles(id)}/${file}`;

/** The name of a recording as it was brought. */
export const originalFile = ({ id, file }: Pick<Footage, 'id' | 'file'>): string =>
  footageFile(id, file);

/** The name of a recording's pointer track. */
export const trackFile = (id: string): string => footageFile(id, 'pointer.json');

/** The name of a pointer track that was sent and not read yet. */
export const sentTrack = (id: string): string => footageFile(id, 'track.upload');
