import type { Size } from '@/core/scale/rect';
import type { Blob } from '@/core/vision/blobs';
import { Gathering, type Kin } from '@/core/vision/gathering';
import { TILE, tilesOf, type Luma } from '@/core/vision/luma';
import { sight, type Sighting } from '@/core/vision/sightings';
import { StandingThings } from './standing';

/** With more changed tiles than this at once, the ground is a new one. */
const MOST_TILES = 300;
/** With more things on the ground than this, they are the page's own. */
const MOST_BLOBS = 3;
/** A look that is not seen to move has to be seen at so many places. */
const PLACES = 3;
/** Two are enough where the pointer was lost, since something has to be there. */
const PLACES_WHERE_LOST = 2;
/** A place that changes for longer than so many pictures is part of the page. */
const LONGEST = 240;

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Within so many pixels of a known pointer, what is seen may be the pointer. */
const REACH = 72;

/** What stands where it stood has the same key. */
const keyOf = ({ x, y, width, height, count }: Blob) => [x, y, width, height, count].join();

/**
 * Learns looks of a pointer that hardly moves while it has them, as a text cursor or a hand, in
 * stretches in which the pointer was lost: what stands on the ground that was seen there before the
 * pointer came.
 */
export class OrphanLearner {
  private readonly all = new Gathering();
  private readonly whereLost = new Gathering();
  private last: Point | null = null;
  private readonly things: StandingThings;
  private readonly ground: Uint8Array;
  /** Tiles that differ from the ground, and since which picture. */
  private readonly differing = new Map<number, number>();
  /** What was seen in the last picture in which something was. */
  private standing: ReadonlySet<string> = new Set();
  /** In which picture something was seen. */
  private readonly seenIn = new WeakMap<Sighting, number>();

  constructor(private readonly size: Size) {
    this.things = new StandingThings(size);
    this.ground = new Uint8Array(size.width * size.height);
  }

  /** Begins a stretch with a picture in which the pointer is known. */
  begin({ data }: Luma): void {
    this.ground.set(data);
    this.differing.clear();
    this.things.clear();
  }

  /**
   * Looks at the next picture of a stretch.
   *
   * @param index its number in the recording
   * @param now its luma
   * @param changed the tiles that changed since the one before
   * @param pointer where the pointer is known to be; null where it is lost
   */
  look(index: number, now: Luma, changed: readonly number[], pointer: Point | null): void {
    for (const tile of changed) {
      if (!this.differing.has(tile)) this.differing.set(tile, index);
      this.things.touch(tile);
    }
    if (changed.length > MOST_TILES) {
      this.begin(now);
      return;
    }
    if (pointer) {
      this.last = pointer;
      this.renew(now, (tile) => !this.isNear(tile, pointer));
      return;
    }
    this.renew(now, (_, since) => index - since > LONGEST);
    if (!changed.length || !this.differing.size) return;
    const ground: Luma = { ...now, data: this.ground };
    const fitting = this.things.find(now, ground, this.differing);
    const before = this.standing;
    const few = fitting.length <= MOST_BLOBS ? fitting : [];
    this.standing = new Set(few.map(keyOf));
    for (const blob of few) {
      // Nothing new: it stands where it stood.
      if (before.has(keyOf(blob))) continue;
      const sighting = sight(blob, now);
      this.seenIn.set(sighting, index);
      this.all.add(sighting);
      const { x, y, width, height } = sighting;
      const { last } = this;
      const there =
        last && Math.max(Math.abs(x + width / 2 - last.x), Math.abs(y + height / 2 - last.y));
      if (there !== null && there < REACH) this.whereLost.add(sighting);
    }
  }

  /** Takes a picture's tiles as ground where that is so. */
  private renew({ data, stride }: Luma, wanted: (tile: number, since: number) => boolean): void {
    const { across } = tilesOf(this.size);
    for (const [tile, since] of this.differing) {
      if (!wanted(tile, since)) continue;
      this.differing.delete(tile);
      this.things.touch(tile);
      const left = (tile % across) * TILE;
      const top = Math.floor(tile / across) * TILE;
      for (let y = top; y < top + TILE; y++)
        this.ground.set(
          data.subarray(y * stride + left, y * stride + left + TILE),
          y * stride + left,
        );
    }
  }

  private isNear(tile: number, { x, y }: Point): boolean {
    const { across } = tilesOf(this.size);
    const [left, top] = [(tile % across) * TILE, Math.floor(tile / across) * TILE];
    return Math.abs(left + TILE / 2 - x) < REACH && Math.abs(top + TILE / 2 - y) < REACH;
  }

  /**
   * What was seen often enough to be believed.
   *
   * @param counts whether what was seen in a picture counts, by the picture's number
   */
  believed(counts: (picture: number) => boolean): readonly Kin[] {
    const { all, whereLost, seenIn } = this;
    const isCounted = (sighting: Sighting) => counts(seenIn.get(sighting)!);
    return [
      ...all.believed(PLACES, PLACES, isCounted),
      ...whereLost.believed(PLACES_WHERE_LOST, PLACES_WHERE_LOST, isCounted),
    ];
  }
}
