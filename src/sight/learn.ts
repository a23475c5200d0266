import type { Size } from '@/core/scale/rect';
import { BlobFinder } from '@/core/vision/blobs';
import { Gathering, type Kin } from '@/core/vision/gathering';
import { TILE, tilesOf } from '@/core/vision/luma';
import { sightingsOf, type Sighting } from '@/core/vision/sightings';
import type { Pictures } from './pictures';

/** Pictures so far apart are compared: one that moves slowly still overlaps itself in the next. */
const GAPS = [1, 2, 4, 8] as const;
export const LONGEST_GAP = 8;
/** With more changed tiles than this, more than a pointer has moved. */
const MOST_TILES = 420;
/** A tile that changes in more than this share of the pictures around shows a film or a spinner. */
const BUSY = 0.35;
/** How fast it is forgotten what a tile did, a picture. */
const MEMORY = 0.96;
/** Over the whole, where a pointer goes by changes in no more than this share of the pictures. */
const SELDOM = 0.12;
/** Of the places of a look, so many are wide apart. */
const PLACES = 3;
const MOST_SIGHTINGS = 4;
/** Each stretch of so many pictures gives so many sightings at most, so that all have a share. */
const STRETCH = 150;
const SHARE = 20;
/** One that tells nothing new counts for so much of a sighting: it has cost its time too. */
const KNOWN = 0.15;

/** Learns from a recording what its pointer looks like, picture by picture. */
export class PointerLearner {
  private readonly gathering = new Gathering();
  private readonly finder: BlobFinder;
  private readonly busy: Float32Array;
  private readonly across: number;
  /** How often each tile has changed. */
  private readonly changes: Uint32Array;
  private readonly all: readonly number[];
  private readonly recent: (readonly number[])[] = [];
  private given = 0;

  constructor(
    private readonly pictures: Pictures,
    size: Size,
  ) {
    this.finder = new BlobFinder(size);
    const { across, down } = tilesOf(size);
    this.across = across;
    this.all = Array.from({ length: across * down }, (_, tile) => tile);
    this.changes = new Uint32Array(across * down);
    this.busy = new Float32Array(across * down);
  }

  /**
   * Looks at the newest picture, of which it is known which tiles changed.
   *
   * @returns those of them that do not change all the time
   */
  look(changed: readonly number[]): readonly number[] {
    const calm = this.calmOf(changed);
    this.gather(changed.length > MOST_TILES ? this.all : calm);
    return calm;
  }

  private calmOf(changed: readonly number[]): readonly number[] {
    const { busy, across } = this;
    for (let tile = 0; tile < busy.length; tile++) busy[tile]! *= MEMORY;
    for (const tile of changed) {
      busy[tile]! += 1 - MEMORY;
      this.changes[tile]!++;
    }
    // The edges of a film change more seldom than its middle.
    const around = [-across - 1, -across, -across + 1, -1, 0, 1, across - 1, across, across + 1];
    return changed.filter((tile) => around.every((by) => !(busy[tile + by]! > BUSY)));
  }

  /**
   * Gathers what moved.
   *
   * @param calm all there are if a page came or went by: what is calm in it tells nothing then
   */
  private gather(calm: readonly number[]): void {
    const { recent, pictures } = this;
    if (pictures.count % STRETCH === 0) this.given = 0;
    recent.unshift(calm);
    recent.length = Math.min(recent.length, LONGEST_GAP);
    if (!recent[0]!.length) return;
    for (const gap of GAPS) {
      if (pictures.count <= gap || this.given >= SHARE) return;
      const tiles = new Set(recent.slice(0, gap).flat());
      if (tiles.size > MOST_TILES) return;
      const [now, before] = [pictures.luma(0), pictures.luma(gap)];
      const sightings = sightingsOf(now, before, this.finder.find(now, before, tiles));
      // A pointer is one thing; what moves as many is none.
      if (sightings.length > MOST_SIGHTINGS) continue;
      for (const sighting of sightings) {
        if (!this.isCalm(sighting)) continue;
        this.given += this.gathering.add(sighting) ? 1 : KNOWN;
      }
    }
  }

  /** Whether little changed at a sighting's place over all that was seen so far. */
  private isCalm({ x, y, width, height }: Sighting): boolean {
    const column = Math.floor((x + width / 2) / TILE);
    const row = Math.floor((y + height / 2) / TILE);
    const seldom = SELDOM * (this.pictures.count + STRETCH);
    return (this.changes[row * this.across + column] ?? 0) <= seldom;
  }

  /**
   * What moved as a pointer does.
   *
   * @param places how often it has to be seen to be believed
   */
  believed(places: number): readonly Kin[] {
    return this.gathering.believed(places, PLACES, (one) => this.isCalm(one));
  }
}
