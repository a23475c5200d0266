import type { Plate } from './plate';
import type { SmallPicture } from './picture';

/** The most that the model's opinion counts, as a logarithm of odds. */
const MOST_PRIOR = 4;
/** What differs from the plate is person with at most these odds, what does not is none. */
const MOST_DIFFERENT = 7;
const LEAST_DIFFERENT = -3.2;
/** Luma counts half: a person's shadow changes it, and hardly the colours. */
const LUMA_TRUST = 0.5;
/** A light part of a person that is darker than the plate by so many times may be their shadow. */
const SHADOW = 0.6;

/**
 * How surely each pixel is of a person, as logarithms of odds: what the model thinks, and how much
 * the pixel differs from what lies behind it (a log-likelihood ratio of Gaussian noise about the
 * plate against any colour being as likely).
 *
 * @param prior how surely the model takes each pixel for a person, 0 to 1; null where nothing but
 *   the plate tells
 * @param light factor of the plate's luma above black
 */
export function weighEvidence(
  picture: SmallPicture,
  plate: Plate | null,
  prior: Float32Array | null,
  light: number,
  into: Float32Array,
): void {
  const { y, u, v } = picture;
  for (let i = 0; i < y.length; i++) {
    let odds = 0;
    if (prior) {
      const p = Math.min(1 - 1e-3, Math.max(1e-3, prior[i]!));
      odds = Math.max(-MOST_PRIOR, Math.min(MOST_PRIOR, Math.log(p / (1 - p))));
    }
    const known = plate ? plate.known[i]! : 0;
    if (plate && known > 0) {
      const was = 16 + (plate.y[i]! - 16) * light;
      let dy = (y[i]! - was) / plate.spread.y[i]!;
      const du = (u[i]! - plate.u[i]!) / plate.spread.u[i]!;
      const dv = (v[i]! - plate.v[i]!) / plate.spread.v[i]!;
      const color = du * du + dv * dv;
      const ratio = (y[i]! - 16) / Math.max(1, was - 16);
      if (ratio < 1 && ratio > SHADOW && color < 12) dy *= 0.5;
      const different = 0.5 * (LUMA_TRUST * dy * dy + color) * 0.5 - 3;
      odds += known * Math.max(LEAST_DIFFERENT, Math.min(MOST_DIFFERENT, different));
    }
    into[i] = odds;
  }
}
