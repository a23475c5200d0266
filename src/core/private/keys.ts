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

/** Whether a piece of text is of signs of several kinds, as few words are. */
export const isMixed = (text: string): boolean =>
  text.length > 2 && (/_/.test(text) || new Set([...text.slice(1)].map(classOf)).size > 1);
