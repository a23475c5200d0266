/**
 * Lets requests through one after the other with some time between, so that a crowd of one kind
 * does not keep the others from their turn. One that comes alone goes through at once.
 */
export class Spread {
  private free = 0;

  /** @param apart milliseconds between two that are let through */
  constructor(private readonly apart: number) {}

  /** Settles when it is this request's turn. */
  async pass(): Promise<void> {
    const now = performance.now();
    const turn = Math.max(now, this.free);
    this.free = turn + this.apart;
    if (turn > now) await new Promise((resolve) => setTimeout(resolve, turn - now));
  }
}
