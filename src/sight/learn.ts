import type { Size } from '@/core/scale/rect';
import { BlobFinder } from '@/core/vision/blobs';
import { Gathering, type Kin } from '@/core/vision/gathering';
import { fitsKin, lookOf, type PointerLook } from '@/core/vision/look';
import { tilesOf } from '@/core/vision/luma';
import { sightingsOf } from '@/core/vision/sightings';
import type { Pictures } from './pictures';

/** Pictures so far apart are compared: a pointer that moves slowly still overlaps itself in the next. */
const GAPS = [1, 2, 4, 8] as const;
export const LONGEST_GAP = 8;
/** With more changed tiles than this, more than a pointer has moved. */
const MOST_TILES = 420;
/** A tile that changes in more than this share of the pictures around shows a video or a spinner. */
const BUSY = 0.5;
/** How fast it is forgotten what a tile did, a picture. */
const MEMORY = 0.96;
/** Each stretch of so many pictures gives at most so many sightings, so that all have their share. */
const STRETCH = 150;
const SHARE = 20;
const MOST_LOOKS = 4;

/** Learns from a recording what its pointer looks like, picture by picture. */
export class PointerLearner {
  private readonly gathering = new Gathering();
  private readonly finder: BlobFinder;
  private readonly busy: Float32Array;
  private readonly recent: number[][] = [];
  private readonly known: { readonly kin: Kin; readonly look: PointerLook }[] = [];
  private readonly judged = new Set<Kin>();
  private given = 0;

  constructor(
    private readonly pictures: Pictures,
    size: Size,
  ) {
    this.finder = new BlobFinder(size);
    const { across, down } = tilesOf(size);
    this.busy = new Float32Array(across * down);
  }

  /** Looks at the newest picture, of which it is known which tiles changed. */
  look(changed: readonly number[]): void {
    const { busy, recent, pictures } = this;
    if (pictures.count % STRETCH === 0) this.given = 0;
    for (let tile = 0; tile < busy.length; tile++) busy[tile]! *= MEMORY;
    for (const tile of changed) busy[tile]! += 1 - MEMORY;
    recent.unshift(changed.filter((tile) => busy[tile]! <= BUSY));
    recent.length = Math.min(recent.length, LONGEST_GAP);
    if (!recent[0]!.length) return;
    for (const gap of GAPS) {
      if (pictures.count <= gap || this.given >= SHARE) return;
      const tiles = new Set(recent.slice(0, gap).flat());
      if (tiles.size > MOST_TILES) return;
      const [now, before] = [pictures.luma(0), pictures.luma(gap)];
      const sightings = sightingsOf(now, before, this.finder.find(now, before, tiles));
      this.given += sightings.length;
      for (const sighting of sightings) this.gathering.add(sighting);
    }
  }

  /**
   * The looks of the pointer that can be told by now, each with the number that it keeps.
   *
   * @param places how often one has to be seen to be believed
   */
  looks(places: number): readonly PointerLook[] {
    for (const kin of this.gathering.believed(places)) {
      if (this.judged.has(kin) || this.known.length === MOST_LOOKS) continue;
      this.judged.add(kin);
      if (this.known.some(({ look }) => fitsKin(look, kin))) continue;
      const look = lookOf(kin);
      if (look) this.known.push({ kin, look });
    }
    return this.known.map(({ look }) => look);
  }

  /** The same looks, from all that was seen of them; corners stay where they were. */
  refined(): readonly PointerLook[] {
    return this.known.map(({ kin, look }) => lookOf(kin) ?? look);
  }
}
