import { problem } from '../problem';

export interface JsonBounds {
  /** How deep values may be nested. */
  readonly depth: number;
  /** How many values there may be, in all lists and objects together. */
  readonly values: number;
}

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const COMMA = 0x2c;
const OPEN = new Set([0x5b, 0x7b]);
const CLOSE = new Set([0x5d, 0x7d]);

/**
 * Looks at the bytes of a JSON text, before anything is made of it, for more values or deeper
 * nesting than is taken: what parses a text and what checks it takes time and memory by both. Goes
 * over the bytes once.
 *
 * @throws Problem when a bound is passed; a text that is not JSON may pass
 */
export function checkJsonBounds(bytes: Uint8Array, { depth, values }: JsonBounds): void {
  let deep = 0;
  let count = 0;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!;
    if (byte === QUOTE) {
      for (i++; i < bytes.length && bytes[i] !== QUOTE; i++) if (bytes[i] === BACKSLASH) i++;
    } else if (byte === COMMA) {
      if (++count > values) throw problem('body-too-many', values);
    } else if (OPEN.has(byte)) {
      if (++deep > depth) throw problem('body-too-deep', depth);
      if (++count > values) throw problem('body-too-many', values);
    } else if (CLOSE.has(byte)) deep--;
  }
}
