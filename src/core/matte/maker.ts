import { weighEvidence } from './evidence';
import { PLANES, type SmallPicture } from './picture';
import { lightOf, type Plate } from './plate';
import { enclosed, partsOf } from './regions';
import { EdgeSolver } from './solve';
import { steadyMatte } from './steady';

/** A part that is smaller than this share of the largest is no person by itself. */
const LEAST_PART = 0.04;
/** A hole that surely shows what lies behind stays one. */
const SURELY_BEHIND = -2.5;
/** Odds beyond this are as good as certain, as logarithms. */
const CERTAIN = 4.5;
/** Without a model what is behind can't be told from a shirt of its colour, except by its size. */
const LARGEST_HOLE = 0.02;

/**
 * Makes the matte of a recording's pictures one after the other, at the size of `matteSize`: who is
 * to be seen, without what lies behind them.
 */
export class MatteMaker {
  private readonly odds: Float32Array;
  private readonly sure: Float32Array;
  private readonly fresh: Float32Array;
  private readonly steadied: Float32Array;
  private readonly solver: EdgeSolver;
  private before: SmallPicture | null = null;

  /**
   * @param plate what lies behind, as far as it is known; null where the camera moves
   * @param modelled whether a model tells who is a person; else all that differs from the plate is
   */
  constructor(
    private readonly size: { readonly width: number; readonly height: number },
    private readonly plate: Plate | null,
    private readonly modelled: boolean,
  ) {
    const plane = () => new Float32Array(size.width * size.height);
    [this.odds, this.sure, this.fresh, this.steadied] = [plane(), plane(), plane(), plane()];
    this.solver = new EdgeSolver(size.width, size.height);
  }

  /**
   * The matte of the next picture, 0 to 255; valid until the next one.
   *
   * @param prior how surely the model takes each pixel for a person; null where there is none
   */
  next(picture: SmallPicture, prior: Float32Array | null, into: Uint8Array): void {
    const { plate, odds, sure, fresh, steadied, before } = this;
    const behind = this.behind(picture, prior);
    const light = plate ? lightOf(plate, picture, behind) : 1;
    weighEvidence(picture, plate, this.modelled ? prior : null, light, odds);
    this.tidy();
    this.solver.solve(picture, plate, sure, light, fresh);
    if (before) steadyMatte(picture, before, fresh, steadied);
    else steadied.set(fresh);
    this.keep(picture);
    for (let i = 0; i < into.length; i++) into[i] = 255 * steadied[i]! + 0.5;
  }

  /** What is surely background, as far as it can be told before the light is known. */
  private behind(picture: SmallPicture, prior: Float32Array | null): Uint8Array {
    const surely = new Uint8Array(picture.y.length).fill(1);
    if (prior) for (let i = 0; i < surely.length; i++) if (prior[i]! >= 0.1) surely[i] = 0;
    return surely;
  }

  /** From odds to how sure it is, without holes in a person and specks beside them. */
  private tidy(): void {
    const { odds, sure, size, modelled } = this;
    const { width, height } = size;
    const person = new Uint8Array(odds.length);
    for (let i = 0; i < person.length; i++) if (odds[i]! > 0) person[i] = 1;
    const { labels, sizes } = partsOf(person, width, height);
    const largest = Math.max(...sizes);
    const small = (i: number) => sizes[labels[i]!]! < largest * LEAST_PART;
    for (let i = 0; i < person.length; i++) if (person[i] && small(i)) person[i] = 0;
    const holes = enclosed(person, width, height);
    const { labels: holeOf, sizes: holeSizes } = partsOf(holes, width, height);
    const most = width * height * LARGEST_HOLE;
    for (let i = 0; i < sure.length; i++) {
      const odd = odds[i]!;
      const filled = holes[i] && (modelled ? odd > SURELY_BEHIND : holeSizes[holeOf[i]!]! < most);
      if (filled) sure[i] = 1;
      else if (odd > 0 && !person[i]) sure[i] = 0;
      else if (odd > CERTAIN) sure[i] = 1;
      else sure[i] = odd < -CERTAIN ? 0 : 1 / (1 + Math.exp(-odd));
    }
  }

  private keep(picture: SmallPicture): void {
    const before = (this.before ??= {
      ...picture,
      ...{ y: picture.y.slice(), u: picture.u.slice(), v: picture.v.slice() },
    });
    for (const name of PLANES) before[name].set(picture[name]);
  }
}
