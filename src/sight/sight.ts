import { anchoredTo, type Anchor } from '@/core/vision/anchored';
import { boxesOf, movedPart, type Change } from '@/core/vision/changes';
import { joinHotspots, strangersAmong } from '@/core/vision/joins';
import { LEAST_CHANGE, tilesOf } from '@/core/vision/luma';
import type { PointerLook } from '@/core/vision/look';
import type { Page } from '@/core/vision/page';
import {
  pathOf,
  PointerPath,
  type Candidate,
  type Found,
  type Picture,
} from '@/core/vision/pointer-path';
import { scrolledBy } from '@/core/vision/scrolling';
import { areaOf, type Size } from '@/core/scale/rect';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { framesPerSecond, type FrameRate } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { KeptPictures } from './kept-pictures';
import { KnownLooks } from './known-looks';
import { LONGEST_GAP, PointerLearner } from './learn';
import { OrphanLearner, type Point } from './orphans';
import { PageReader } from './pages';
import { FEWEST, inTiles, Pictures } from './pictures';
import type { PictureStream } from './recording';
import { lostAfterAll, runsOf, type Run } from './runs';
import { Rereading } from './rereading';
import { toldOf, type Told } from './told';
import { PointerTracker } from './track';

/** A recording that is looked through. */
export interface SightedRecording {
  /** Its luma from a second on, in whole tiles. */
  readonly open: (seconds: number) => PictureStream;
  /** About how many pictures it has. */
  readonly pictures: number;
  /** Is told the share that is done, 0 to 1. */
  readonly onProgress: (share: number) => void;
  /** Where the pointer is known to be at some time of it. */
  readonly anchor?: Anchor;
  /** Is told now and then what was found of the pointer in the first so many milliseconds. */
  readonly onSoFar?: (track: PointerTrack | null, until: number) => void;
}

/** What was found in a recording. */
export interface Sighted extends Told {
  readonly looks: readonly PointerLook[];
  readonly pictures: readonly Picture[];
  readonly path: readonly Found[];
  readonly pages: readonly Page[];
  /** How many pictures were looked at once more. */
  readonly again: number;
}

/** So many places make a look believed at once; in the end fewer do. */
const SOON = 6;
const IN_THE_END = 3;
/** Whether there are new looks is asked each so many pictures. */
const OFTEN = 24;
/** A tile has so many changed samples if something happened there. */
const CLEARLY = 14;

/**
 * What was found so far is told first after so many pictures, and whenever there are by so much
 * more: presses are inferred from all of it each time.
 */
const FIRST_TOLD = 150;
const TOLD_AGAIN = 1.25;
/** The first pass's part of all that is to be done, as a guess. */
const FIRST = 0.7;
/**
 * A part of this share of the picture may have been scrolled, if so much of the picture changed: of
 * a page with few words most stays as it is.
 */
const LEAST_SCROLLED = 0.05;
const FEWEST_SCROLLED = 0.01;

interface FirstPass {
  /** From which picture on each look was known that was before its end. */
  readonly since: readonly number[];
  /** Pictures of stretches in which the pointer seemed to be seen, until it turned out lost. */
  readonly lostLater: ReadonlySet<number>;
}

/**
 * Finds a baked-in pointer in the pictures of a recording. In one pass over them its looks are
 * learned from what moves, and looked for as soon as they are known. What came before is looked at
 * once more; and so are stretches in which the pointer was lost, with all that was learned: looks
 * that it has only while it rests are learned from what stands on the ground where it is lost.
 */
export class ScreenSighting {
  private readonly known = new KnownLooks();
  private found: Picture[] = [];
  private path: readonly Found[] = [];
  private pages: readonly Page[] = [];
  private again = 0;
  private readonly orphans: OrphanLearner;
  private readonly changes: Change[] = [];
  private readonly kept: KeptPictures;
  private readonly inMemory: Size;

  constructor(
    private readonly heap: KernelHeap,
    private readonly size: Size,
    private readonly rate: FrameRate,
    private readonly recording: SightedRecording,
  ) {
    this.inMemory = inTiles(size);
    this.orphans = new OrphanLearner(this.inMemory);
    this.kept = new KeptPictures(this.inMemory);
  }

  run(): Sighted {
    const { since, lostLater } = this.firstPass();
    const { known, found } = this;
    if (known.looks().length) {
      const early = since[0] ?? Infinity;
      const lost = (i: number) => !this.path[i]!.at;
      this.learnOrphans(runsOf(found.length, (i) => lostLater.has(i)));
      // What was looked for with all that is known now need not be looked at again.
      const knew = since.length === known.looks().length ? since[since.length - 1]! : Infinity;
      this.lookAgain(runsOf(found.length, (i) => i < early || (i < knew && lost(i))));
      const soFar = known.looks().length;
      this.learnOrphans(runsOf(found.length, (i) => i < early && lost(i)));
      if (known.looks().length > soFar) this.lookAgain(runsOf(found.length, lost));
      this.dropStrangers();
    }
    const looks = joinHotspots(this.path, known.refined(), known.moves);
    return {
      looks,
      pictures: found,
      path: this.path,
      again: this.again,
      pages: this.pages,
      ...toldOf({ looks, path: this.path, pictures: found, changes: this.changes }, this.size),
    };
  }

  /** Finds the path anew without looks that turn out to be none of the pointer's. */
  private dropStrangers(): void {
    const strangers = strangersAmong(this.path, this.known.looks(), this.known.moves);
    if (!strangers.length) return;
    this.found.forEach(({ ms, candidates }, i) => {
      this.found[i] = { ms, candidates: candidates.filter((at) => !strangers.includes(at.look)) };
    });
    this.path = this.pathNow();
  }

  /** The path over all that was found by now, led through where the pointer is known to be. */
  private pathNow(path: readonly Found[] = pathOf(this.found)): readonly Found[] {
    const { found } = this;
    const { anchor } = this.recording;
    if (!anchor) return path;
    const anchored = anchoredTo(anchor, found, this.known.looks(), path);
    return anchored === found ? path : pathOf(anchored);
  }

  private reported = 0;

  private report(share: number): void {
    if (share < this.reported + 0.01) return;
    this.reported = share;
    this.recording.onProgress(share);
  }

  private readonly msOf = (index: number): number => (index * 1000) / framesPerSecond(this.rate);

  /** Learns and tracks. */
  private firstPass(): FirstPass {
    const { heap, inMemory, known, orphans, msOf } = this;
    using pictures = new Pictures(heap, inMemory, LONGEST_GAP + 1);
    using tracker = new PointerTracker(pictures, []);
    using stream = this.recording.open(0);
    const learner = new PointerLearner(pictures, inMemory);
    const reader = new PageReader(pictures);
    const path = new PointerPath();
    const since: number[] = [];
    const seen: boolean[] = [];
    let tellNext = FIRST_TOLD;
    while (pictures.take((into) => stream.read(into))) {
      const index = pictures.count - 1;
      const changed = index ? pictures.changedSince(1, LEAST_CHANGE, FEWEST) : [];
      this.kept.keep(pictures.luma(0).data, index ? pictures.differing() : null);
      // A key frame draws all of a still page a little otherwise; that is nothing that happened.
      const clear = pictures.clearlyChanged(changed, CLEARLY);
      const calm = pictures.clearlyChanged(learner.look(changed), CLEARLY);
      if (index % OFTEN === 0) {
        known.learn(learner.believed(SOON), true);
        const looks = known.looks();
        if (!since.length && looks.length) orphans.begin(pictures.luma(0));
        while (since.length < looks.length) since.push(index);
        tracker.know(looks);
      }
      tracker.look(msOf(index), changed);
      const at = path.add(tracker.found[index]!);
      seen.push(at !== null);
      if (since.length) orphans.look(index, pictures.luma(0), changed, this.middleOf(at));
      this.report(FIRST * Math.min(1, index / this.recording.pictures));
      reader.look(msOf(index), calm);
      this.changes.push(this.changeOf(pictures, msOf(index), clear, calm));
      if (pictures.count >= tellNext) {
        this.tellSoFar(path.whole(), tracker.found);
        tellNext = Math.ceil(tellNext * TOLD_AGAIN);
      }
    }
    known.learn(learner.believed(IN_THE_END), true);
    this.pages = reader.pages();
    this.found = [...tracker.found];
    this.path = this.pathNow(path.whole());
    this.believeOrphans();
    return { since, lostLater: since.length ? lostAfterAll(seen, this.path) : new Set() };
  }

  /** Learns what was seen where the pointer is lost, as far as is known by now. */
  private believeOrphans(): void {
    const { known, orphans, path } = this;
    known.learn(
      orphans.believed((picture) => !path[picture]!.at),
      false,
    );
  }

  /** The middle of what is seen of the pointer at a place. */
  private middleOf(at: Candidate | null): Point | null {
    const look = at && this.known.looks()[at.look];
    return at && look ? { x: at.x + look.width / 2, y: at.y + look.height / 2 } : null;
  }

  /** Tells what was found by now, if anybody wants to know. */
  private tellSoFar(path: readonly Found[], pictures: readonly Picture[]): void {
    const { onSoFar } = this.recording;
    if (!onSoFar) return;
    const seen = { looks: this.known.looks(), path, pictures, changes: this.changes };
    onSoFar(toldOf(seen, this.size).track, this.msOf(pictures.length));
  }

  /** What changed in the newest picture, and whether it was scrolled. */
  private changeOf(
    pictures: Pictures,
    ms: number,
    changed: readonly number[],
    calm: readonly number[],
  ): Change {
    const { across, down } = tilesOf(this.inMemory);
    const boxes = boxesOf(changed, across);
    const share = changed.length / (across * down);
    const part = movedPart(boxes);
    const scrolls =
      changed.length >= FEWEST_SCROLLED * across * down &&
      areaOf(part) >= LEAST_SCROLLED * areaOf(this.inMemory);
    const scrolled = scrolls ? scrolledBy(pictures.luma(1), pictures.luma(0), part) : 0;
    return { ms, boxes, calm: boxesOf(calm, across), share, scrolled };
  }

  private reread(): Rereading {
    const { width, height } = this.inMemory;
    return new Rereading(
      (index) => this.recording.open(this.msOf(index) / 1000),
      new Uint8Array(width * height),
    );
  }

  /** Goes through the pictures of a run, and tells which tiles changed. */
  private eachOf(
    run: Run,
    reading: Rereading,
    pictures: Pictures,
    look: (index: number, changed: readonly number[]) => void,
  ): void {
    const { from, to } = run;
    const isKept = this.kept.covers(run);
    if (!isKept) reading.goTo(from);
    using source = isKept ? this.kept.open(from) : null;
    for (let i = from; i < to && pictures.take((into) => (source ?? reading).read(into)); i++)
      look(i, i > from ? pictures.changedSince(1, LEAST_CHANGE, FEWEST) : []);
    this.again += to - from;
    // What is looked at again is seldom more than the whole.
    this.report(FIRST + (1 - FIRST) * Math.min(0.99, this.again / this.found.length));
  }

  /** Looks at runs of pictures with all looks that are known. */
  private lookAgain(runs: readonly Run[]): void {
    if (!runs.length) return;
    using reading = this.reread();
    for (const run of runs) {
      using pictures = new Pictures(this.heap, this.inMemory, 2);
      using tracker = new PointerTracker(pictures, this.known.looks());
      this.eachOf(run, reading, pictures, (index, changed) =>
        tracker.look(this.msOf(index), changed),
      );
      tracker.found.forEach((picture, i) => {
        this.found[run.from + i] = picture;
      });
    }
    this.path = this.pathNow();
  }

  /** Learns, in runs of pictures in which the pointer was lost, what it may have looked like. */
  private learnOrphans(runs: readonly Run[]): void {
    if (!runs.length) return;
    const { orphans } = this;
    using reading = this.reread();
    using pictures = new Pictures(this.heap, this.inMemory, 2);
    for (const run of runs)
      this.eachOf(run, reading, pictures, (index, changed) => {
        const now = pictures.luma(0);
        if (index === run.from) orphans.begin(now);
        orphans.look(index, now, changed, this.middleOf(this.path[index]!.at));
      });
    this.believeOrphans();
  }
}
