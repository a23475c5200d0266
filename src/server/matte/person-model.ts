import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createRequire } from 'node:module';
import type { GraphModel } from '@tensorflow/tfjs-converter';
import { MODEL_SIDE } from '@/core/matte/model-view';
import { programRoot } from '../places';

/** What a model's description in its file says. */
interface ModelFile {
  readonly modelTopology: object;
  readonly weightsManifest: readonly { readonly weights: never[] }[];
}

/**
 * The model that tells people from what is behind them: a network of the size of a fifth of a
 * megabyte, run by WebAssembly in this process. Its weights ship within a package of the registry
 * (`scripts/model.mjs`).
 */
export class PersonModel {
  private constructor(
    private readonly core: typeof import('@tensorflow/tfjs-core'),
    private readonly model: GraphModel,
  ) {}

  /** Loads runtime and weights; takes about half a second. */
  static async load(): Promise<PersonModel> {
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
      readFileSync(join(folder, 'person.json'), 'utf8'),
    ) as ModelFile;
    const weights = readFileSync(join(folder, 'person.bin'));
    const model = await loadGraphModel(
      core.io.fromMemory({
        modelTopology,
        weightSpecs: weightsManifest[0]!.weights,
        weightData: Uint8Array.from(weights).buffer,
      }),
    );
    return new PersonModel(core, model);
  }

  /**
   * How surely each place of a picture is of a person, 0 to 1.
   *
   * @param input red, green and blue of 0 to 1, `MODEL_SIDE` squared
   */
  look(input: Float32Array): Float32Array {
    const { core, model } = this;
    const picture = core.tensor4d(input, [1, MODEL_SIDE, MODEL_SIDE, 3]);
    const answer = model.execute(picture) as import('@tensorflow/tfjs-core').Tensor;
    const sure = answer.dataSync<'float32'>();
    core.dispose([picture, answer]);
    return sure;
  }
}
