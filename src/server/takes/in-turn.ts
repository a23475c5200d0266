const shared = globalThis as { vistumTurns?: Map<string, Promise<unknown>> };
const queues = (shared.vistumTurns ??= new Map<string, Promise<unknown>>());

/** One after the other for each name, within this process. */
export function inTurn<T>(name: string, work: () => Promise<T>): Promise<T> {
  const before = queues.get(name) ?? Promise.resolve();
  const now = before.then(work, work);
  const settled = now.catch(() => undefined);
  queues.set(name, settled);
  void settled.then(() => queues.get(name) === settled && queues.delete(name));
  return now;
}
