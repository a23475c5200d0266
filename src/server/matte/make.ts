import type { MatteSummary, MatteTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { MatteMaker } from '@/core/matte/maker';
import { matteSize, pictureIn, type SmallPicture } from '@/core/matte/picture';
import { learnPlate, type Plate } from '@/core/matte/plate';
import { framesPerSecond, rateFromNumber, ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import { PictureStream } from '../media/picture-stream';
import { matteWriter } from './matte-file';
import { samplePictures } from '../models/sampled';
import { ModelHost } from './model-host';
import { LEAST_PERSON, Watcher } from './watcher';

/** Pictures from which it is learned what is behind. */
const LOOKS = 32;
/** A short recording shows little more in more of them than this. */
const FEW_LOOKS = 16;
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
  using model = task.method === 'person' ? new ModelHost(size) : null;
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
    if (shareOf(matte) > 255 * LEAST_PERSON) seen++;
    onProgress(LEARNING + (1 - LEARNING) * Math.min(1, ++done / total));
  }
  await writer.finish();
  return { ...task, ...size, seen: seen / Math.max(1, done), behind: known };
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
  for (let i = 0; i < plane.length; i++) sum += plane[i]!;
  return sum / plane.length;
}

/** Some of a recording's pictures, spread over a stretch of it in seconds. */
const spread = ({ path, facts, size }: Recording, from: number, to: number, most: number) =>
  samplePictures(path, facts, size, [from, to], most);

/** What is behind a person who moves, by a model that tells where they are. */
function plateBehind(
  recording: Recording,
  watcher: Watcher,
  onProgress: (share: number) => void,
): Plate {
  const seconds = ticksToSeconds(recording.facts.duration);
  const count = Math.min(LOOKS, Math.max(FEW_LOOKS, Math.round(seconds * 2)));
  const looked = spread(recording, 0, seconds, count);
  const behind = looked.map((picture, i) => {
    watcher.look(picture);
    const sure = watcher.seen();
    onProgress((i + 1) / looked.length);
    const clear = new Uint8Array(sure.length);
    for (let k = 0; k < clear.length; k++) clear[k] = sure[k]! < 0.1 ? 1 : 0;
    return clear;
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

/**
 * A recording's pictures one after the other, with what the model thinks of each. It looks at the
 * last of each few; what it would think of those before lies between two that it saw. While it
 * looks at the next few, those before are given.
 */
function* pictures(
  recording: Recording,
  rate: FrameRate,
  watcher: Watcher | null,
): Generator<Watched> {
  const { path, facts, size } = recording;
  const step = watcher ? Math.max(1, Math.ceil(framesPerSecond(rate) / ASKED)) : 1;
  using stream = new PictureStream(path, facts, { small: size, start: 0, rate });
  const rooms = [0, 1].map(() => Array.from({ length: step }, () => bytesOf(recording)));
  const few = (turn: number): SmallPicture[] => {
    const read: SmallPicture[] = [];
    for (const bytes of rooms[turn % 2]!) {
      if (!stream.read(bytes)) break;
      read.push(pictureIn(bytes, size.width, size.height));
    }
    return read;
  };
  let last: Float32Array | null = null;
  let now = few(0);
  if (now.length) watcher?.look(now.at(-1)!);
  for (let turn = 1; now.length; turn++) {
    const sure = watcher?.seen() ?? null;
    const next: SmallPicture[] = now.length < step ? [] : few(turn);
    if (next.length) watcher?.look(next.at(-1)!);
    for (const [i, picture] of now.entries())
      yield { picture, prior: sure && between(last ?? sure, sure, (i + 1) / now.length) };
    last = sure;
    now = next;
  }
}

/** What the model would think of a picture between two others. */
function between(from: Float32Array, to: Float32Array, share: number): Float32Array {
  if (share === 1) return to;
  const out = new Float32Array(to.length);
  for (let i = 0; i < out.length; i++) out[i] = from[i]! + (to[i]! - from[i]!) * share;
  return out;
}
