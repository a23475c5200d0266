import { customAlphabet } from 'nanoid';

/**
 * An id that can stand anywhere: in an address, a file name, or as a word of a command, where a
 * leading dash would be an option.
 */
export const newId = customAlphabet(
  '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz',
  21,
);
