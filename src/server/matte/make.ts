import type { MatteSummary, MatteTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { MatteMaker } from '@/core/matte/maker';
import { matteSize, pictureIn, type SmallPicture } from '@/core/matte/picture';
import { learnPlate, type Plate } from '@/core/matte/plate';
import { framesPerSecond, rateFromNumber, ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import { PictureStream } from '../media/picture-stream';
import { matteWriter } from './matte-file';
import { PersonModel } from './person-model';
import { Watcher } from './watcher';

/** Pictures from which it is learned what is behind. */
const LOOKS = 32;
/** Shorter recordings are read as a whole for that; of longer ones single pictures are looked up. */
const SHORT = 90;
/** The model is asked for so many pictures a second; what is between follows from both sides. */
const ASKED = 15;
const MOST_RATE = 60;
/** Share of the time that learning takes, as progress. */
const LEARNING = 0.12;
/** A background of which less than this is steady tells nothing: the camera moves. */
const LEAST_KNOWN = 0.25;

/**
 * Makes the matte of a recording and writes it as a video of the same times: first what lies behind
 * the presenter is put together, then picture after picture is told from it.
 *
 * @param to the file that it becomes
 * @param onProgress is told the share that is done, 0 to 1
 * @throws Problem when the recording can't be decoded, or the matte not be written
 */
export async function makeMatte(
  path: string,
  facts: MediaFacts,
  task: MatteTask,
  to: string,
  onProgress: (share: number) => void,
): Promise<MatteSummary> {
  const size = matteSize(facts);
  const own = facts.frameRate ?? rateFromNumber(30);
  const rate = framesPerSecond(own) > MOST_RATE ? rateFromNumber(MOST_RATE) : own;
  const recording = { path, facts, size };
  const model = task.method === 'person' ? await PersonModel.load() : null;
  const plate = model
    ? plateBehind(recording, new Watcher(model), (share) => onProgress(share * LEARNING))
    : plateOf(recording, task);
  const known = plate ? shareOf(plate.known) : 0;
  const maker = new MatteMaker(size, known < LEAST_KNOWN ? null : plate, !!model);
  using writer = matteWriter(to, size, rate);
  const count = size.width * size.height;
  const matte = new Uint8Array(count);
  const total = Math.max(1, ticksToSeconds(facts.duration) * framesPerSecond(rate));
  let done = 0;
  let seen = 0;
  for (const { picture, prior } of pictures(recording, rate, model && new Watcher(model))) {
    maker.next(picture, prior, matte);
    writer.write(matte);
    if (shareOf(matte) > 255 * 0.004) seen++;
    onProgress(LEARNING + (1 - LEARNING) * Math.min(1, ++done / total));
  }
  await writer.finish();
  return { ...task, seen: seen / Math.max(1, done), behind: known };
}

interface Recording {
  readonly path: string;
  readonly facts: MediaFacts;
  readonly size: { readonly width: number; readonly height: number };
}

const bytesOf = ({ size }: Recording) => new Uint8Array(size.width * size.height * 3);

/** Mean of a plane. */
function shareOf(plane: Float32Array | Uint8Array): number {
  let sum = 0;
  for (const value of plane) sum += value;
  return sum / plane.length;
}

/** Some of a recording's pictures, spread over a stretch of it in seconds. */
function spread(recording: Recording, from: number, to: number, most: number): SmallPicture[] {
  const { path, facts, size } = recording;
  const options = { small: size, rate: facts.frameRate ?? rateFromNumber(30) };
  const found: SmallPicture[] = [];
  const take = (stream: PictureStream): boolean => {
    const bytes = bytesOf(recording);
    if (!stream.read(bytes)) return false;
    found.push(pictureIn(bytes, size.width, size.height));
    return true;
  };
  if (to - from <= SHORT) {
    const rate = rateFromNumber(Math.min(10, most / Math.max(0.1, to - from)));
    using stream = new PictureStream(path, facts, { ...options, start: from, rate });
    while (found.length < most && take(stream));
    return found;
  }
  for (let i = 0; i < most; i++) {
    const start = from + ((i + 0.5) / most) * (to - from);
    using stream = new PictureStream(path, facts, { ...options, start, speed: 0 });
    take(stream);
  }
  return found;
}

/** What is behind a person who moves, by a model that tells where they are. */
function plateBehind(
  recording: Recording,
  watcher: Watcher,
  onProgress: (share: number) => void,
): Plate {
  const looked = spread(recording, 0, ticksToSeconds(recording.facts.duration), LOOKS);
  const behind = looked.map((picture, i) => {
    const sure = watcher.look(picture);
    onProgress((i + 1) / looked.length);
    return Uint8Array.from(sure, (p) => (p < 0.1 ? 1 : 0));
  });
  return learnPlate(looked, behind);
}

/** What is behind a person, from a stretch in which they are not there. */
function plateOf(recording: Recording, { shot }: MatteTask): Plate {
  const [from, to] = [ticksToSeconds(shot!.start), ticksToSeconds(shot!.end)];
  const looked = spread(recording, from, to, LOOKS / 2);
  const { width, height } = recording.size;
  return learnPlate(
    looked,
    looked.map(() => new Uint8Array(width * height).fill(1)),
  );
}

interface Watched {
  readonly picture: SmallPicture;
  readonly prior: Float32Array | null;
}

/** A recording's pictures one after the other, with what the model thinks of each. */
function* pictures(
  recording: Recording,
  rate: FrameRate,
  watcher: Watcher | null,
): Generator<Watched> {
  const { path, facts, size } = recording;
  const step = watcher ? Math.max(1, Math.ceil(framesPerSecond(rate) / ASKED)) : 1;
  using stream = new PictureStream(path, facts, { small: size, start: 0, rate });
  const room = Array.from({ length: step }, () => bytesOf(recording));
  let last: Float32Array | null = null;
  for (let over = false; !over;) {
    let got = 0;
    while (got < step && !(over = !stream.read(room[got]!))) got++;
    if (!got) return;
    const read = room.slice(0, got).map((bytes) => pictureIn(bytes, size.width, size.height));
    // The last of each few is looked at; those before it lie between two that were.
    const next = watcher?.look(read[got - 1]!) ?? null;
    for (const [i, picture] of read.entries())
      yield { picture, prior: next && between(last ?? next, next, (i + 1) / got) };
    last = next;
  }
}

/** What the model would think of a picture between two others. */
function between(from: Float32Array, to: Float32Array, share: number): Float32Array {
  if (share === 1) return to;
  const out = new Float32Array(to.length);
  for (let i = 0; i < out.length; i++) out[i] = from[i]! + (to[i]! - from[i]!) * share;
  return out;
}
