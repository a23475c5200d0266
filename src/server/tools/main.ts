import { Problem, type PlainProblem } from '../problem';
import { again } from './again';
import { align } from './align';
import { draw } from './draw';
import { face } from './face';
import { follow } from './follow';
import { findLeaks } from './leaks';
import { matte } from './matte';
import { lookForPrivate } from './private';
import { sight } from './sight';
import { track } from './track';

/*
 * Tools that read what strangers made, each call in a process of its own that can be ended: a file
 * says little about how long reading it takes. The answer is one JSON value on standard output.
 */

/** A share is told when it is a hundredth more. */
const LEAST_STEP = 0.01;
let told = 0;

function tell(share: number): void {
  if (share < told + LEAST_STEP) return;
  told = share;
  process.stderr.write(`${share.toFixed(3)}\n`);
}

async function run([tool, from, to, ...more]: readonly string[]): Promise<unknown> {
  if (tool === 'draw') return draw(from!, to!);
  if (tool === 'track') return track(from!, to!, Number(more[0]), Number(more[1]));
  if (tool === 'again') return again(from!, to!, more[0]!, tell);
  if (tool === 'align') return align(from!, to!, tell);
  if (tool === 'sight') return sight(from!, to!, more[0]!, tell);
  if (tool === 'follow') return follow(from!, to!, more[0]!, tell);
  if (tool === 'face') return face(from!, to!, more[0]!, more[1] === 'follow', tell);
  if (tool === 'matte') return matte(from!, to!, more[0]!, tell);
  if (tool === 'private') return lookForPrivate(from!, to!, more[0]!, tell);
  if (tool === 'leaks') return findLeaks(from!, to!, tell);
  throw new Error(`There is no tool ${tool}`);
}

let answer: { value: unknown } | { problem: PlainProblem };
let code = 0;
try {
  answer = { value: await run(process.argv.slice(2)) };
} catch (error) {
  if (!(error instanceof Problem)) throw error;
  answer = { problem: error.plain() };
  code = 1;
}
process.stdout.write(JSON.stringify(answer), () => process.exit(code));
