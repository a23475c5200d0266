/** Where a tool writes what it has found before its result is whole. */
export const soFarFile = (to: string): string => `${to}.so-far`;
