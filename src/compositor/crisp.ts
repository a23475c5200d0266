import { readModel } from '@/core/crisp/model';
import { CRISP_WEIGHTS } from '@/core/crisp/weights';
import { intersect, type Rect, type Size } from '@/core/scale/rect';
import { crispRoom, packModel } from '@/kernels/crisp';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import { LruMap } from './lru';
import type { SourceFrame } from './source-frame';
import { eachTile, grown, isIn, piecesOf, samplesOf, tileAt, tilesIn, within } from './tile-range';
import { TILE, tilesOf } from './tiles';

/**
 * How far beyond what changes something else is made of it, in whole blocks: `crispPlane` draws
 * from six samples around, and leaves blocks of 8 out.
 */
const MARGIN = 8;
/** Samples around what is shown that filters draw from at twice the size. */
const REACH = 4;
/** Recordings whose text is kept. */
const KEPT = 3;
/**
 * What a change adds to a tile's unrest, of which each picture takes one. From `moving` on it is
 * left to the plain filter until it falls below `still`: nobody reads what moves, and it would cost
 * most.
 */
const UNREST = { change: 3, moving: 7, still: 3, most: 10 } as const;

/** What `steadyPlane` says of a tile. */
const KNOWN = 1;
const TAKEN = 2;
const FIRST = 3;
const EASED = 4;
/** Side of the blocks that its boxes are told in. */
const BLOCK = 8;

/** What a tile at twice the size is. */
const NONE = 0;
const PLAIN = 1;
const REBUILT = 2;

/** Luma of a recording at twice the size. */
interface Kept {
  readonly size: Size;
  /** The luma that it is made of: the recording's but for its codec's noise. */
  readonly steady: Plane;
  readonly doubled: Plane;
  readonly across: number;
  readonly down: number;
  /** A byte for each tile in the kernels' memory: 0 where `steady` knows nothing. */
  readonly states: number;
  /** Four bytes for each tile behind that: what of it has changed, as `steadyPlane` tells. */
  readonly boxes: number;
  readonly made: Uint8Array;
  readonly unrest: Uint8Array;
  last: SourceFrame | null;
  turn: number;
  /** The turn before. */
  since: number;
  /** What the last turn changed, in samples of `doubled`. */
  changes: readonly Rect[];
}

/** Luma at twice the size. */
export interface Doubled {
  readonly plane: Plane;
  /** Where the picture that it was made of lies in it, in samples of that picture. */
  readonly x: number;
  readonly y: number;
  /** Another one whenever anything in the plane changes; never that of another plane. */
  readonly turn: number;
  /** What differs from the turn `since`, in samples of the plane. */
  readonly since: number;
  readonly changes: readonly Rect[];
}

/**
 * Rebuilds text that is magnified: doubles the luma of recordings by a small network. What was made
 * is kept, and made anew where the recording changes by more than its codec's noise.
 */
export class CrispText {
  private readonly kept: LruMap<Kept>;
  private readonly model: number;
  private readonly shifts: number;
  private readonly room: number;
  /** Samples that may still be rebuilt for the picture at hand. */
  private budget = Infinity;
  /** Whether what moves is left to the plain filter. */
  private inMotion = true;
  /** Of any plane, so far. */
  private turns = 0;
  /** Whether something was left to the plain filter for want of time. */
  private lacking = false;

  constructor(private readonly heap: KernelHeap) {
    const { model, shifts } = packModel(readModel(CRISP_WEIGHTS));
    this.model = heap.put(model);
    this.shifts = heap.put(shifts);
    this.room = heap.allocate(crispRoom(2 * (TILE.width + MARGIN), 2 * (TILE.height + MARGIN)));
    this.kept = new LruMap(KEPT, ({ steady, doubled, states }) =>
      [steady.at, doubled.at, states].forEach((at) => heap.release(at)),
    );
  }

  /**
   * Begins a picture.
   *
   * @param budget samples that may be rebuilt for it
   * @param inMotion whether it is one of many, in which what moves is not read
   */
  begin(budget: number, inMotion: boolean): void {
    this.budget = budget;
    this.inMotion = inMotion;
    this.lacking = false;
  }

  /** Whether something of the budget is left. */
  get hasTime(): boolean {
    return this.budget > 0;
  }

  /** Whether the picture that was begun last lacks something that another try would add. */
  get unfinished(): boolean {
    return this.lacking;
  }

  /**
   * The luma of a picture at twice the size, good in and around the part that is wanted.
   *
   * @param name of the recording
   * @param footage size of the recording
   * @param wanted in samples of the picture
   * @param ahead whether it is not to be seen yet: what there is no time for is then left alone
   */
  double(name: string, source: SourceFrame, footage: Size, wanted: Rect, ahead = false): Doubled {
    const { picture, part } = source;
    const scale = part ? picture.width / part.width : 1;
    const size = part
      ? { width: Math.round(footage.width * scale), height: Math.round(footage.height * scale) }
      : { width: picture.width, height: picture.height };
    const [left, top] = part ? [Math.round(part.x * scale), Math.round(part.y * scale)] : [0, 0];
    const kept = this.keptOf(name, size);
    const need = tilesIn(
      grown({ ...wanted, x: wanted.x + left, y: wanted.y + top }, REACH),
      kept.size,
    );
    const { lacking } = this;
    const done = this.make(kept, need, this.steady(kept, source, left, top, need), ahead);
    if (ahead) this.lacking = lacking;
    kept.last = source;
    if (done.length) {
      kept.since = kept.turn;
      kept.turn = ++this.turns;
      kept.changes = done.map((rect) => ({
        ...{ x: 2 * rect.x, y: 2 * rect.y },
        ...{ width: 2 * rect.width, height: 2 * rect.height },
      }));
    }
    const { doubled, turn, since, changes } = kept;
    return { plane: doubled, x: left, y: top, turn, since, changes };
  }

  private keptOf(name: string, size: Size): Kept {
    const found = this.kept.find(name);
    if (found?.size.width === size.width && found.size.height === size.height) return found;
    const { heap } = this;
    const { width, height } = size;
    const { across, down } = tilesOf(size);
    const plane = (by: number) => {
      // Resampling reads a little beyond.
      const at = heap.allocate(width * by * height * by + 64);
      heap.bytes(at, width * by * height * by).fill(0);
      return { at, stride: width * by, width: width * by, height: height * by };
    };
    const states = heap.allocate(across * down * 5);
    heap.bytes(states, across * down).fill(0);
    const made: Kept = {
      ...{ size, steady: plane(1), doubled: plane(2), across, down, states },
      boxes: states + across * down,
      made: new Uint8Array(across * down),
      unrest: new Uint8Array(across * down),
      last: null,
      turn: ++this.turns,
      since: 0,
      changes: [],
    };
    this.kept.set(name, made);
    return made;
  }

  /** Takes in what is new of a picture; a byte for each tile, 1 where it has changed. */
  private steady(kept: Kept, source: SourceFrame, left: number, top: number, need: Rect) {
    const { steady, across, down, states, unrest, made, size } = kept;
    const { y: luma } = source.picture;
    const around = tilesIn(grown(samplesOf(need), MARGIN), size);
    this.heap.exports.steadyPlane(
      ...([luma.at, luma.stride, luma.width, luma.height, left, top] as const),
      ...([steady.at, steady.stride, steady.height] as const),
      ...([TILE.width, TILE.height, across] as const),
      ...([around.x, around.y, around.x + around.width, around.y + around.height] as const),
      // A picture that rests is just what it is, whatever was shown before.
      ...([this.inMotion ? 0 : 1, states, kept.boxes] as const),
    );
    const known = this.heap.bytes(states, across * down);
    const changed = new Uint8Array(across * down);
    const again = kept.last === source;
    const boxes = this.heap.bytes(kept.boxes, across * down * 4);
    const near = (i: number) => tilesIn(grown(samplesOf(tileAt(i, across)), MARGIN), size);
    eachTile(around, across, (i) => {
      const what = known[i];
      if (what === TAKEN) unrest[i] = Math.min(UNREST.most, unrest[i]! + UNREST.change);
      else if (!again && unrest[i]) unrest[i]!--;
      if (what !== TAKEN && what !== FIRST && what !== EASED) return;
      known[i] = KNOWN;
      if (what === FIRST) {
        // What was made beside it had nothing of it.
        let beside = false;
        eachTile(near(i), across, (other) => {
          beside ||= made[other] !== NONE;
        });
        if (!beside) return;
        boxes.set([0, 0, TILE.width / BLOCK, TILE.height / BLOCK], i * 4);
      }
      changed[i] = 1;
      // What is out of sight is made when it comes into sight.
      eachTile(near(i), across, (other) => {
        if (!isIn(need, other, across)) made[other] = NONE;
      });
    });
    return changed;
  }

  /** Makes what is needed and not there, or was made of what has changed; answers where. */
  private make(kept: Kept, need: Rect, changed: Uint8Array, ahead: boolean): Rect[] {
    const { across, down, made, size } = kept;
    const around = tilesIn(grown(samplesOf(need), MARGIN), size);
    const { moving, lacks, renewed } = this.sort(kept, need, around, changed);
    const boxes = this.heap.bytes(kept.boxes, across * down * 4).slice();
    const all = (i: number) => samplesOf(tileAt(i, across));
    const part = (i: number) => (changed[i] ? boxIn(all(i), boxes.subarray(i * 4)) : all(i));
    const done: Rect[] = [];
    // Of what lies beside only the margin within is needed.
    const needed = within(samplesOf(need), size);
    const fill = (rect: Rect, rebuilt: boolean) => {
      const room = intersect(rect, needed);
      if (!room.width || !room.height) return;
      this.fill(kept, room, rebuilt);
      done.push(room);
    };
    const plainly = (i: number) => {
      fill(grown(made[i] === NONE ? all(i) : part(i), MARGIN), false);
      if (isIn(need, i, across)) made[i] = PLAIN;
    };
    eachTile(around, across, (i) => {
      if (moving[i] && (changed[i] || !ahead)) plainly(i);
    });
    // What has been waiting comes before what has only just changed.
    for (const [marks, partOf] of [
      [lacks, all],
      [renewed, part],
    ] as const)
      for (const { tiles, rect } of piecesOf(marks, around, across, partOf)) {
        const marked = (visit: (i: number) => void) =>
          eachTile(tiles, across, (i) => {
            if (marks[i]) visit(i);
          });
        if (!this.affords()) {
          marked((i) => {
            if (changed[i] || !ahead) plainly(i);
          });
          continue;
        }
        // What changed, or was filled plainly, reaches beyond its tiles.
        let margin = 0;
        marked((i) => {
          if (changed[i] || made[i] === PLAIN) margin = MARGIN;
        });
        fill(grown(rect, margin), true);
        if (marks === lacks) marked((i) => (made[i] = REBUILT));
      }
    return done;
  }

  /** What moves, what is not made yet, and of what a part is made anew: a byte for each tile. */
  private sort({ across, made, unrest }: Kept, need: Rect, around: Rect, changed: Uint8Array) {
    const [moving, lacks, renewed] = [0, 0, 0].map(() => new Uint8Array(changed.length)) as [
      Uint8Array,
      Uint8Array,
      Uint8Array,
    ];
    eachTile(around, across, (i) => {
      const limit = made[i] === PLAIN ? UNREST.still : UNREST.moving;
      const still = !this.inMotion || unrest[i]! < limit;
      const lacking = isIn(need, i, across) && made[i] !== REBUILT;
      if (changed[i]) (still ? (lacking ? lacks : renewed) : moving)[i] = 1;
      else if (lacking && still) lacks[i] = 1;
      else if (lacking && made[i] === NONE) moving[i] = 1;
    });
    return { moving, lacks, renewed };
  }

  private affords(): boolean {
    if (this.budget <= 0) this.lacking = true;
    return !this.lacking;
  }

  /** Doubles a rectangle. */
  private fill({ steady, doubled }: Kept, { x, y, width, height }: Rect, rebuilt: boolean): void {
    this.budget -= this.heap.exports.crispPlane(
      ...([steady.at, steady.stride, steady.width, steady.height, x, y, width, height] as const),
      doubled.at + 2 * y * doubled.stride + 2 * x,
      doubled.stride,
      rebuilt ? this.model : 0,
      this.shifts,
      this.room,
    );
  }
}

/** A part of a tile, whose edges are told in blocks. */
const boxIn = ({ x, y }: Rect, [left, top, right, bottom]: Uint8Array): Rect => ({
  ...{ x: x + left! * BLOCK, y: y + top! * BLOCK },
  ...{ width: (right! - left!) * BLOCK, height: (bottom! - top!) * BLOCK },
});
