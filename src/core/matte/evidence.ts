import type { Plate } from './plate';
import type { SmallPicture } from './picture';

/** The most that the model's opinion counts, as a logarithm of odds. */
const MOST_PRIOR = 4;
/** Logarithms of the odds of probabilities from 0 to 1 in even steps. */
const ODDS = Float32Array.from({ length: 1025 }, (_, i) =>
  Math.max(-MOST_PRIOR, Math.min(MOST_PRIOR, Math.log(i / (1024 - i)))),
);
/** What differs from the plate is person with at most these odds, what does not is none. */
const MOST_DIFFERENT = 7;
const LEAST_DIFFERENT = -3.2;
/** Luma counts half: a person's shadow changes it, and hardly the colours. */
const LUMA_TRUST = 0.5;
/** What is no darker than this share of the plate may be a shadow, if its colour differs little. */
const SHADOW = 0.6;
const SHADOW_COLOR = 12;
/** Odds that a pixel like the plate is none of the person, as a logarithm. */
const CONFIDENCE = 3;

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
  if (!plate) {
    for (let i = 0; i < y.length; i++) into[i] = oddsOf(prior, i);
    return;
  }
  const { known, precision } = plate;
  const lit = Float32Array.from({ length: 256 }, (_, luma) => 16 + (luma - 16) * light);
  for (let i = 0; i < y.length; i++) {
    const odds = oddsOf(prior, i);
    if (!(known[i]! > 0)) {
      into[i] = odds;
      continue;
    }
    const was = lit[plate.y[i]!]!;
    let dy = (y[i]! - was) * precision.y[i]!;
    const du = (u[i]! - plate.u[i]!) * precision.u[i]!;
    const dv = (v[i]! - plate.v[i]!) * precision.v[i]!;
    const color = du * du + dv * dv;
    // Darker, of the same colour, and not by much: it may be a shadow.
    if (dy < 0 && color < SHADOW_COLOR && y[i]! - 16 > SHADOW * (was - 16)) dy *= 0.5;
    const different = 0.25 * (LUMA_TRUST * dy * dy + color) - CONFIDENCE;
    into[i] = odds + known[i]! * Math.max(LEAST_DIFFERENT, Math.min(MOST_DIFFERENT, different));
  }
}

/** What the model thinks of a pixel, as a logarithm of odds; 0 where there is none. */
const oddsOf = (prior: Float32Array | null, i: number): number =>
  prior ? ODDS[(prior[i]! * 1024 + 0.5) | 0]! : 0;
