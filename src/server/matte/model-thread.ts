import { workerData } from 'node:worker_threads';
import { MODEL_SIDE, modelInput, modelOutput } from '@/core/matte/model-view';
import { pictureIn } from '@/core/matte/picture';
import { ANSWERED, ASKED, BROKEN, linkOf, type LinkMemory } from './model-link';
import { Model } from '../models/model';

/* A thread that runs the model of a person, so that another core can work on what it told. */

const link = workerData as LinkMemory;
const { state, box, input, output } = linkOf(link);

function say(word: number): void {
  Atomics.store(state, 0, word);
  Atomics.notify(state, 0);
}

try {
  const model = await Model.load('person');
  const { width, height } = link.size;
  const picture = pictureIn(input, width, height);
  const seen = new Float32Array(MODEL_SIDE * MODEL_SIDE * 3);
  for (;;) {
    for (let now = Atomics.load(state, 0); now !== ASKED; now = Atomics.load(state, 0))
      Atomics.wait(state, 0, now);
    const part = { x: box[0]!, y: box[1]!, width: box[2]!, height: box[3]! };
    modelInput(picture, part, seen);
    output.set(modelOutput(model.look(seen)[0]!.values, part, picture));
    say(ANSWERED);
  }
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
  say(BROKEN);
}
