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

/** Reading by machine puts spaces around signs, and takes some of them for others. */
const EMAIL =
  /[\p{L}\d][\p{L}\d_%+-]*(?:[.,]\s?[\p{L}\d_%+-]+)*\s?[@©]\s?[\p{L}\d-]+(?:(?:\s?[.,]\s?[\p{L}\d-]+)*[.,]\s?\p{L}{2,}|\s\p{L}{2,})/gu;
/** Digits in groups, as numbers of telephones and cards are written. */
const NUMBER = /[+(]?\d[\d\s().\-–/]{5,34}\d/g;
/** International bank account numbers, as ISO 13616 writes them, in groups of four or in one. */
const ACCOUNT = /\b[A-Z]{2}[\dO]{2}(?:\s?[A-Z\d]{4}){2,7}(?:\s?[A-Z\d]{1,4})?\b/g;
/** Four groups of four and more, as nothing else is written. */
const GROUPS = /^\w{4}(?: \w{4}){3,}/;
/** Text without a space that is long enough for a key, with signs that letters are taken for. */
const TOKEN = /[A-Za-z\d_\-+/=.~|[\](){}¥£€§]{16,}/g;
/** What stands before a secret, and the secret. */
const NAMED =
  /\b(?:password|passwort|passcode|passphrase|secret|token|api[ _-]?key|access[ _-]?key|pin)\b\s*[:=]\s*(\S{4,})/gi;

const DATE = /^(?:\d{4}[-./]\d{1,2}[-./]\d{1,2}|\d{1,2}[-./]\d{1,2}[-./]\d{2,4})(?:\s.*)?$/;
/** Numbers with a point, of versions, addresses of machines or amounts, or of years. */
const PLAIN = /^\d+(?:\.\d+)+$|^(?:19|20)\d\d\s?[-–]\s?(?:19|20)\d\d$/;

const digitsOf = (text: string): string => text.replace(/\D/g, '');

/** Whether digits are those of a payment card: the check digit of ISO/IEC 7812-1 (Luhn). */
export function isCard(digits: string): boolean {
  if (digits.length < 13 || digits.length > 19 || /^(\d)\1*$/.test(digits)) return false;
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i]);
    const twice = digit * 2;
    sum += i % 2 ? twice - (twice > 9 ? 9 : 0) : digit;
  }
  return sum % 10 === 0;
}

/** Whether a text is an account number: the remainder by 97 of ISO/IEC 7064 is 1. */
export function isAccount(text: string): boolean {
  const joined = text.replace(/\s/g, '').toUpperCase();
  const plain = joined.slice(0, 2) + joined.slice(2, 4).replace(/O/g, '0') + joined.slice(4);
  if (!/^[A-Z]{2}\d{2}[A-Z\d]{10,30}$/.test(plain)) return false;
  let rest = 0;
  for (const sign of plain.slice(4) + plain.slice(0, 4))
    for (const digit of String(parseInt(sign, 36))) rest = (rest * 10 + Number(digit)) % 97;
  return rest === 1;
}

/** Whether a group of digits is written as numbers of telephones are (ITU-T E.123, and at home). */
export function isPhone(text: string): boolean {
  const digits = digitsOf(text);
  if (digits.length < 7 || digits.length > 15 || DATE.test(text) || PLAIN.test(text)) return false;
  if (text.startsWith('+')) return true;
  const groups = text.split(/[\s().\-–/]+/).filter(Boolean);
  if (groups.length < 2) return false;
  if (/^\(?0/.test(text)) return digits.length >= 9;
  // A slashed 0 is read as a 9: what is in three groups and more, and not by thousands, is one too.
  const byThousands = groups.every(({ length }, i) => (i ? length === 3 : length <= 3));
  const isGrouped = groups.length >= 3 && groups.every(({ length }) => length > 1 && length < 5);
  if (isGrouped && !byThousands && digits.length >= 9) return true;
  return /^\(?\d{3}\)?[\s.-]?\d{3}[\s.-]\d{4}$/.test(text) || /^\d{3}-\d{4}$/.test(text);
}

/** The bits of a sign of a text, by how often each stands in it (Shannon 1948). */
function entropyOf(text: string): number {
  const counts = new Map<string, number>();
  for (const sign of text) counts.set(sign, (counts.get(sign) ?? 0) + 1);
  let bits = 0;
  for (const count of counts.values())
    bits -= (count / text.length) * Math.log2(count / text.length);
  return bits;
}

/** Of a key the signs are as good as random: so many bits each at least. */
const RANDOM = 3.3;
/** Letters, digits and capitals take turns so often in a key, of its signs. */
const TURNS = 0.28;

const classOf = (sign: string): string =>
  /\d/.test(sign) ? 'digit' : /[A-Z]/.test(sign) ? 'capital' : /[a-z]/.test(sign) ? 'small' : '';

/**
 * Whether a text without spaces is a key or a token: long, of letters and digits that follow no
 * pattern, or a signed token of three parts (RFC 7519).
 */
export function isKey(text: string): boolean {
  if (/^eyJ[\w-]{8,}\.[\w-]{8,}(?:\.[\w-]*)?$/.test(text)) return true;
  // Addresses and names of files are of words.
  if (text.includes('//') || /\.[a-z]{2,4}$/.test(text) || /^\/|(?:\/[a-z]+){2}/.test(text))
    return false;
  const core = text.replace(/^[a-z]{2,5}[_-](?:[a-z]{2,5}[_-])?/i, '');
  if (core.length < 16 || !/\d/.test(core) || !/[A-Za-z]/.test(core)) return false;
  if (/^[\da-f-]{24,}$/i.test(core)) return entropyOf(core) >= 2.8;
  let turns = 0;
  for (let i = 1; i < core.length; i++) if (classOf(core[i]!) !== classOf(core[i - 1]!)) turns++;
  return entropyOf(core) >= RANDOM && turns >= TURNS * core.length;
}

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

/** Whether a piece of text is of signs of several kinds, as no word is. */
const isMixed = (text: string): boolean =>
  text.length > 2 && (/_/.test(text) || new Set([...text.slice(1)].map(classOf)).size > 1);

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
