import type { Kin } from '@/core/vision/gathering';
import { fitsKin, lookOf, type PointerLook } from '@/core/vision/look';

/** A pointer has so many looks at most: each one costs a search through all that changes. */
const MOST_LOOKS = 8;

/** The looks of a recording's pointer that are known so far, in the order in which they became so. */
export class KnownLooks {
  private readonly known: { readonly kin: Kin; readonly look: PointerLook }[] = [];
  private readonly judged = new Set<Kin>();

  /** Learns those that are not known yet from sightings that are believed. */
  learn(kins: readonly Kin[]): void {
    for (const kin of kins) {
      if (this.judged.has(kin) || this.known.length === MOST_LOOKS) continue;
      this.judged.add(kin);
      if (this.known.some(({ look }) => fitsKin(look, kin))) continue;
      const look = lookOf(kin);
      if (look) this.known.push({ kin, look });
    }
  }

  looks(): readonly PointerLook[] {
    return this.known.map(({ look }) => look);
  }

  /** The same looks, from all that was seen of them by now; their corners stay where they were. */
  refined(): readonly PointerLook[] {
    return this.known.map(({ kin, look }) => lookOf(kin) ?? look);
  }
}
