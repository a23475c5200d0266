const UNITS = ['KB', 'MB', 'GB', 'TB'] as const;

/**
 * A number of bytes to read: "3.2 GB". Units of 1024, as disks are told elsewhere on the machine.
 */
export function inWords(bytes: number): string {
  let value = bytes / 1024;
  let unit = 0;
  while (value >= 1000 && unit < UNITS.length - 1) {
    value /= 1024;
    unit++;
  }
  return `${value < 10 && unit > 0 ? value.toFixed(1) : Math.ceil(value)} ${UNITS[unit]}`;
}
