const DATE = /^(?:\d{4}[-./]\d{1,2}[-./]\d{1,2}|\d{1,2}[-./]\d{1,2}[-./]\d{2,4})(?:\s.*)?$/;
/** Numbers with a point, of versions, addresses of machines or amounts, or of years. */
const PLAIN = /^\d+(?:\.\d+)+$|^(?:19|20)\d\d\s?[-–]\s?(?:19|20)\d\d$/;

/** The digits of a text, without what stands between. */
export const digitsOf = (text: string): string => text.replace(/\D/g, '');

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
