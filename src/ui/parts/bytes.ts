const UNITS = ['kilobyte', 'megabyte', 'gigabyte', 'terabyte'] as const;

/** A number of bytes to read, in decimal units: "23.2 MB". */
export function bytesInWords(bytes: number): string {
  const thousands = Math.floor(Math.log10(Math.max(1, bytes)) / 3);
  const step = Math.min(UNITS.length, Math.max(1, thousands));
  const format = new Intl.NumberFormat('en', {
    style: 'unit',
    unit: UNITS[step - 1],
    maximumFractionDigits: step > 1 ? 1 : 0,
  });
  return format.format(bytes / 1000 ** step);
}
