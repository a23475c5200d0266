import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import type { MediaFacts } from '@/contract/footage';
import { decodeFaces, FACE_PLACES } from '@/core/face/decode';
import { followFace, type FacePath } from '@/core/face/follow';
import { largestFace, settleFace, type FaceBox } from '@/core/face/settle';
import { firstLooks, MODEL_SIDE, modelInput } from '@/core/matte/model-view';
import { matteSize, type SmallPicture } from '@/core/matte/picture';
import type { Rect, Size } from '@/core/scale/rect';
import { ticksToSeconds } from '@/core/time/ticks';
import { Model } from '../models/model';
import { everyPicture, samplePictures } from '../models/sampled';

/** Somebody waits for this: it goes before what looks through recordings, and after the rest. */
const LOW = 5;
/** Pictures that are looked at. */
const LOOKS = 12;

/** Of a face that is followed, pictures that are looked at in a second. */
const A_SECOND = 3;

/**
 * Looks for the presenter's face in a recording and writes where it is, a `FaceBox`; where it is
 * followed with its path, `AnalysisResults['face-path']`; null where there is none.
 *
 * @param factsFile holds what the recording is, as JSON
 * @param follows whether it is looked for from beginning to end
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function face(
  factsFile: string,
  path: string,
  to: string,
  follows: boolean,
  onProgress: (share: number) => void,
): Promise<{ readonly found: boolean }> {
  setPriority(LOW);
  const facts = JSON.parse(await readFile(factsFile, 'utf8')) as MediaFacts;
  const size = matteSize(facts);
  const seconds = ticksToSeconds(facts.duration);
  const model = await Model.load('face');
  const pictures = follows
    ? everyPicture(path, facts, size, A_SECOND)
    : samplePictures(path, facts, size, [0, seconds], LOOKS);
  const most = follows ? seconds * A_SECOND : LOOKS;
  const faces: Rect[][] = [];
  for (const picture of pictures) {
    faces.push(facesIn(model, picture));
    onProgress(Math.min(1, faces.length / most));
  }
  const usual = settleFace(faces, size);
  const found = usual && follows ? { face: usual, path: pathOf(faces, size, usual) } : usual;
  await writeFile(to, JSON.stringify(found));
  return { found: found !== null };
}

/** The path of a face that is usually in one place: of several, the largest is followed. */
function pathOf(faces: readonly (readonly Rect[])[], size: Size, usual: FaceBox): FacePath {
  const looks = faces.map((all, i) => ({
    ms: Math.round((i * 1000) / A_SECOND),
    face: largestFace(all, size),
  }));
  return followFace(looks, usual);
}

/** The faces of a picture, in its pixels: about its middle, or else anywhere in it. */
function facesIn(model: Model, picture: SmallPicture): Rect[] {
  const input = new Float32Array(MODEL_SIDE * MODEL_SIDE * 3);
  for (const look of firstLooks(picture)) {
    modelInput(picture, look, input);
    // It was taught on colours of -1 to 1.
    for (let i = 0; i < input.length; i++) input[i] = 2 * input[i]! - 1;
    const told = model.look(input);
    const part = (places: number, numbers: number) =>
      told.find(({ shape }) => shape[1] === places && shape[2] === numbers)!.values;
    const joined = (numbers: number) => {
      const all = FACE_PLACES.map((places) => part(places, numbers));
      return Float32Array.from([...all[0]!, ...all[1]!]);
    };
    const found = decodeFaces(joined(1), joined(16)).map(({ x, y, width, height }) => ({
      x: look.x + x * look.width,
      y: look.y + y * look.height,
      width: width * look.width,
      height: height * look.height,
    }));
    if (found.length) return found;
  }
  return [];
}
