import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';

/** Where the program itself lies: its kernels and fonts are read from here. */
export const programRoot = (): string => process.env.VISTUM_ROOT ?? process.cwd();

/** Where all that belongs to the user is kept. */
export const dataDirectory = (): string =>
  resolve(/*turbopackIgnore: true*/ process.env.VISTUM_DATA ?? join(programRoot(), 'data'));

/**
 * A folder for what is being made, which a file store takes over once it is whole; made if it is
 * not there.
 */
export const workFolder = (...parts: string[]): string => dataFolder('work', ...parts);

/** A folder below the data directory, made if it is not there. */
export function dataFolder(...parts: string[]): string {
  const folder = join(dataDirectory(), ...parts);
  mkdirSync(folder, { recursive: true });
  return folder;
}
