/** Where a parabola through a value and its neighbours is highest, from -0.5 to 0.5. */
export function vertex(values: ArrayLike<number>, at: number): number {
  const [before, here, after] = [values[at - 1], values[at], values[at + 1]];
  if (before === undefined || here === undefined || after === undefined) return 0;
  const bend = before - 2 * here + after;
  return bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}
