import type { FootagePart } from '@/contract/footage';
import type { Footage } from '../db/rows/footage';

/** The name in the store below which all of a recording lies: it, and what was made from it. */
export const footageFiles = (id: string): string => `footage/${id}`;

/** The name of what was made from a recording. */
export const footageFile = (id: string, file: string): string => `${footageFiles(id)}/${file}`;

/** The files that are made to show and play a recording by. */
export const PART_FILES: Readonly<Record<FootagePart, { file: string; type: string }>> = {
  proxy: { file: 'proxy.mp4', type: 'video/mp4' },
  sound: { file: 'sound.webm', type: 'audio/webm' },
  thumbs: { file: 'thumbs.jpg', type: 'image/jpeg' },
  peaks: { file: 'peaks.bin', type: 'application/octet-stream' },
  still: { file: 'still.png', type: 'image/png' },
};

/** The file that holds a piece of a proxy while that is being made. */
export const pieceFile = (index: number): string => `proxy-${String(index).padStart(4, '0')}.mp4`;

/** The name of a recording as it was brought. */
export const originalFile = ({ id, file }: Pick<Footage, 'id' | 'file'>): string =>
  footageFile(id, file);

/** The name of a recording's pointer track. */
export const trackFile = (id: string): string => footageFile(id, 'pointer.json');

/** The name of a pointer track that was sent and not read yet. */
export const sentTrack = (id: string): string => footageFile(id, 'track.upload');
