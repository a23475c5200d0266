import { isKey, isMixed } from './keys';
import { digitsOf, isAccount, isCard, isPhone } from './numbers';

/** What kinds of private data are looked for. */
export const PRIVATE_KINDS = ['email', 'phone', 'card', 'account', 'key', 'word'] as const;
export type PrivateKind = (typeof PRIVATE_KINDS)[number];

/** A part of a line that is private. */
export interface PrivatePart {
  readonly kind: PrivateKind;
  /** From this character on, up to before another. */
  readonly from: number;
  readonly to: number;
}

const LOCAL = String.raw`[\p{L}\d][\p{L}\d_%+-]*(?:[.,]\s?[\p{L}\d_%+-]+)*`;
const HOST = String.raw`[\p{L}\d-]+`;
const DOMAIN = String.raw`${HOST}(?:\s?[.,]\s?${HOST})*[.,]\s?\p{L}{2,}`;
/**
 * Addresses of mail. Reading by machine puts spaces beside signs, takes some of them for others and
 * loses points; with a space on both sides the sign is a word of its own.
 */
const EMAIL = new RegExp(
  String.raw`${LOCAL}(?:(?:\s?[@©]|[@©]\s)${DOMAIN}|[@©]${HOST}\s\p{L}{2,})`,
  'gu',
);
/** Digits in groups, as numbers of telephones and cards are written. */
const NUMBER = /[+(]?\d[\d\s().\-–/]{5,34}\d/g;
/** International bank account numbers, as ISO 13616 writes them, in groups of four or in one. */
const ACCOUNT = /\b[A-Z]{2}[\dO]{2}(?:\s?[A-Z\d]{4}){2,7}(?:\s?[A-Z\d]{1,4})?\b/g;
/** Four groups of four and more, as nothing else is written. */
const GROUPS = /^\w{4}(?: \w{4}){3,}/;
/** Text without a space that is long enough for a key, with signs that letters are taken for. */
const TOKEN = /[A-Za-z\d_\-+/=.~|[\](){}¥£€§]{16,}/g;
/** What stands before a secret, and the secret. */
const NAMED = new RegExp(
  String.raw`\b(?:password|passwort|passcode|passphrase|secret|token|(?:api|access)[ _-]?key|pin)\b` +
    String.raw`\s*[:=]\s*(\S{4,})`,
  'gi',
);

/** Text for comparing: small letters without marks, and signs that are read for each other alike. */
export const plainOf = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[il|!]/g, '1')
    .replace(/o/g, '0');

function ownParts(line: string, words: readonly string[]): PrivatePart[] {
  // Signs are compared one by one, so that places stay the same.
  const plain = [...line].map((sign) => plainOf(sign)[0] ?? ' ').join('');
  return words.flatMap((word) => {
    const sought = plainOf(word.trim());
    const found: PrivatePart[] = [];
    if (sought.length < 2) return found;
    for (let at = plain.indexOf(sought); at >= 0; at = plain.indexOf(sought, at + 1))
      found.push({ kind: 'word', from: at, to: at + sought.length });
    return found;
  });
}

const matches = (line: string, pattern: RegExp): { text: string; from: number; to: number }[] =>
  [...line.matchAll(pattern)].map((found) => ({
    ...{ text: found[0], from: found.index, to: found.index + found[0].length },
  }));

function numbersIn(line: string): PrivatePart[] {
  return matches(line, NUMBER).flatMap(({ text, from, to }): PrivatePart[] => {
    const card = isCard(digitsOf(text));
    return card || isPhone(text) ? [{ kind: card ? 'card' : 'phone', from, to }] : [];
  });
}

/** Keys: whole ones, and such as were read as two words. */
function keysIn(line: string): PrivatePart[] {
  const whole = matches(line, TOKEN).filter(({ text }) => isKey(text));
  const pieces = matches(line, /\S+/g);
  const split = pieces.slice(1).flatMap((next, i) => {
    const first = pieces[i]!;
    const isSplit = isMixed(first.text) && isMixed(next.text) && isKey(first.text + next.text);
    return isSplit ? [{ from: first.from, to: next.to }] : [];
  });
  return [...split, ...whole].map(({ from, to }) => ({ kind: 'key', from, to }));
}

/**
 * What is private in a line of text that was read: addresses of mail, numbers of telephones, cards
 * and accounts, keys and tokens, and words of one's own. Parts do not overlap; of two that would, the
 * one that is named first here counts.
 *
 * @param words one's own, which are found in any writing of theirs
 */
export function privateIn(line: string, words: readonly string[] = []): PrivatePart[] {
  const all: PrivatePart[] = [
    ...matches(line, EMAIL).map(({ from, to }): PrivatePart => ({ kind: 'email', from, to })),
    ...matches(line, ACCOUNT)
      // In groups of four it is one by its looks: a digit may be misread.
      .filter(({ text }) => isAccount(text) || GROUPS.test(text))
      .map(({ from, to }): PrivatePart => ({ kind: 'account', from, to })),
    ...numbersIn(line),
    ...[...line.matchAll(NAMED)].map((found): PrivatePart => {
      const to = found.index + found[0].length;
      return { kind: 'key', from: to - found[1]!.length, to };
    }),
    ...keysIn(line),
    ...ownParts(line, words),
  ];
  const kept: PrivatePart[] = [];
  for (const part of all)
    if (!kept.some(({ from, to }) => part.from < to && from < part.to)) kept.push(part);
  return kept.sort((a, b) => a.from - b.from);
}
