import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Tensor } from '@tensorflow/tfjs-core';
import type { GraphModel } from '@tensorflow/tfjs-converter';
import { MODEL_SIDE } from '@/core/matte/model-view';
import { programRoot } from '../places';

/** What a model's description in its file says. */
interface ModelFile {
  readonly modelTopology: object;
  readonly weightsManifest: readonly { readonly weights: never[] }[];
}

/**
 * A small network that looks at a square picture, run by WebAssembly in this process. Its weights
 * ship within a package of the registry (`scripts/model.mjs`).
 */
export class Model {
  private constructor(
    private readonly core: typeof import('@tensorflow/tfjs-core'),
    private readonly model: GraphModel,
  ) {}

  /** Loads runtime and weights; takes about half a second. */
  static async load(name: 'person' | 'face'): Promise<Model> {
    const [core, { loadGraphModel }, { setWasmPaths }] = await Promise.all([
      import('@tensorflow/tfjs-core'),
      import('@tensorflow/tfjs-converter'),
      import('@tensorflow/tfjs-backend-wasm'),
    ]);
    const require = createRequire(import.meta.url);
    const runtime = require.resolve('@tensorflow/tfjs-backend-wasm/package.json');
    setWasmPaths(join(runtime, '..', 'dist', '/'));
    await core.setBackend('wasm');
    await core.ready();
    const folder = join(programRoot(), 'dist', 'models');
    const { modelTopology, weightsManifest } = JSON.parse(
      readFileSync(join(folder, `${name}.json`), 'utf8'),
    ) as ModelFile;
    const weights = readFileSync(join(folder, `${name}.bin`));
    const model = await loadGraphModel(
      core.io.fromMemory({
        modelTopology,
        weightSpecs: weightsManifest[0]!.weights,
        weightData: Uint8Array.from(weights).buffer,
      }),
    );
    return new Model(core, model);
  }

  /**
   * What the network answers to a picture: all of its outputs.
   *
   * @param input red, green and blue, `MODEL_SIDE` squared, in the range that it was taught
   */
  look(
    input: Float32Array,
  ): { readonly shape: readonly number[]; readonly values: Float32Array }[] {
    const { core, model } = this;
    const picture = core.tensor4d(input, [1, MODEL_SIDE, MODEL_SIDE, 3]);
    const answer = model.execute(picture) as Tensor | Tensor[];
    const all = Array.isArray(answer) ? answer : [answer];
    const told = all.map((one) => ({ shape: one.shape, values: one.dataSync<'float32'>() }));
    core.dispose([picture, ...all]);
    return told;
  }
}
