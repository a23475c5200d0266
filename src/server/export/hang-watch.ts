import { limit } from '../limits';
import { endNoted } from '../processes/noted';

const TICK_MS = 200;

/**
 * Looks after threads that wait for decoders and encoders: when nothing gets on for a long time,
 * what they wait for is ended, since they can't do it themselves.
 */
export class HangWatch {
  /** Whether something was ended for standing still. */
  hung = false;
  private last = { progress: -1, since: Date.now() };
  private readonly timer: ReturnType<typeof setInterval>;

  /**
   * @param pids memory in which the threads note their processes
   * @param progress grows as long as the threads get on
   */
  constructor(
    private readonly pids: SharedArrayBuffer,
    private readonly progress: () => number,
    private readonly onTick: (progress: number) => void = () => undefined,
  ) {
    this.timer = setInterval(() => this.look(), TICK_MS);
  }

  /** Ends all that the threads wait for. */
  endAll(): void {
    endNoted(this.pids);
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private look(): void {
    const progress = this.progress();
    this.onTick(progress);
    if (progress !== this.last.progress) this.last = { progress, since: Date.now() };
    else if (Date.now() - this.last.since > limit('stillSeconds') * 1000) {
      this.hung = true;
      this.endAll();
    }
  }
}
