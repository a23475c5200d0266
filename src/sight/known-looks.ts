import type { Kin } from '@/core/vision/gathering';
import { fitsKin, lookOf, type PointerLook } from '@/core/vision/look';

/** A pointer has so many looks at most: each one costs a search through all that changes. */
const MOST_LOOKS = 8;

interface KnownLook {
  readonly kin: Kin;
  readonly look: PointerLook;
  /** Whether it was seen to move. */
  readonly moves: boolean;
}

/** The looks of a recording's pointer that are known so far, in the order in which they came. */
export class KnownLooks {
  private readonly known: KnownLook[] = [];
  private readonly judged = new Set<Kin>();

  /**
   * Learns those that are not known yet from sightings that are believed.
   *
   * @param moves whether they were seen to move
   */
  learn(kins: readonly Kin[], moves: boolean): void {
    for (const kin of kins) {
      if (this.judged.has(kin) || this.known.length === MOST_LOOKS) continue;
      this.judged.add(kin);
      if (this.known.some(({ look }) => fitsKin(look, kin))) continue;
      const look = lookOf(kin);
      if (look) this.known.push({ kin, look, moves });
    }
  }

  looks(): readonly PointerLook[] {
    return this.known.map(({ look }) => look);
  }

  /** Whether a look, by its number, was seen to move: nothing but the pointer does. */
  readonly moves = (number: number): boolean => this.known[number]?.moves ?? false;

  /** The same looks, from all that was seen of them by now; their corners stay where they were. */
  refined(): readonly PointerLook[] {
    return this.known.map(({ kin, look }) => lookOf(kin) ?? look);
  }
}
