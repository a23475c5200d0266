import { splitAll, trimClip } from '@/core/edit/clips';
import { doEdit, EMPTY_HISTORY, undo, type Versioned } from '@/core/edit/history';
import { counter, facts, frame, FRAME } from '@/core/edit/fixture';
import { openJoin, rippleDelete } from '@/core/edit/ripple';
import { setTransition, DEFAULT_TRANSITION } from '@/core/edit/transitions';
import { soundSegments } from '@/core/audio/mix';
import { planFrame } from '@/core/frame/plan-frame';
import { createProject } from '@/core/project/create';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import { validateProject } from '@/core/project/validate';
import { longProject } from './long-project';
import { benchSaving } from './saving';
import { rateFromNumber } from '@/core/time/ticks';

/*
 * What edits, planning and saving of a project cost, by its number of clips: three linked lanes, a
 * callout for each six clips.
 */
const COUNTS = [100, 300, 1000, 3000];
const LENGTH = 216;
const ROUNDS = 9;

const SOURCES: Sources = { footage: { long: facts('long', 'screen', 7200 * 3) }, pointers: {} };

const EMPTY = createProject(1920, 1080, rateFromNumber(30));
const ofClips = (clips: number): Project =>
  longProject(EMPTY, { clips, footageId: 'long', each: LENGTH, apart: LENGTH + 30, gap: 0 });

/** Median milliseconds of some runs, each with another number. */
function time(run: (round: number) => unknown): number {
  const spent = Array.from({ length: ROUNDS }, (_, round) => {
    const started = performance.now();
    run(round);
    return performance.now() - started;
  });
  return spent.sort((a, b) => a - b)[ROUNDS >> 1]!;
}

/**
 * Prints a table of milliseconds, and how much more the longest project costs than the shortest.
 */
export function benchEdits(): void {
  const newId = counter();
  const rows = new Map<string, number[]>();
  const note = (name: string, ms: number) => rows.set(name, [...(rows.get(name) ?? []), ms]);
  for (const count of COUNTS) {
    const state: Versioned = { project: ofClips(count), history: EMPTY_HISTORY };
    const middle = (round: number) => frame(Math.floor(count / 6) * LENGTH + 20 + round);
    const at = Math.floor(count / 6);
    const cut = doEdit(state, 'Ripple delete', (p) =>
      rippleDelete(p, { start: middle(0), end: middle(40) }, newId),
    );
    note(
      'split all lanes',
      time((round) => doEdit(state, 'Split', (p) => splitAll(p, middle(round), newId))),
    );
    note(
      'trim a clip',
      time(() =>
        doEdit(state, 'Trim', (p) =>
          trimClip(p, SOURCES, `screen${at}`, 'end', frame(at * LENGTH + 50), FRAME),
        ),
      ),
    );
    note(
      'ripple delete',
      time((round) =>
        doEdit(state, 'Ripple', (p) =>
          rippleDelete(p, { start: middle(round), end: middle(40) }, newId),
        ),
      ),
    );
    note(
      'open a join',
      time(() => doEdit(cut, 'Open', (p) => openJoin(p, middle(0), Infinity, newId))),
    );
    note(
      'dissolve',
      time(() =>
        doEdit(state, 'Dissolve', (p) =>
          setTransition(p, SOURCES, `screen${at}`, 'start', DEFAULT_TRANSITION, FRAME),
        ),
      ),
    );
    note(
      'undo a ripple delete',
      time(() => undo(cut)),
    );
    note(
      'describe a picture',
      time((round) =>
        planFrame(state.project, SOURCES, middle(round), { width: 1280, height: 720 }),
      ),
    );
    note(
      'plan the sound',
      time(() => soundSegments(state.project, SOURCES)),
    );
    note(
      'check a document',
      time(() => validateProject(state.project, SOURCES)),
    );
    note('bytes of the ripple delete in the history', JSON.stringify(cut.history).length);
  }
  console.log('\nEdits by the number of clips, ms (median of nine)');
  console.log(`  ${''.padEnd(44)}${COUNTS.map((c) => String(c).padStart(9)).join('')}   times`);
  for (const [name, values] of rows)
    console.log(
      `  ${name.padEnd(44)}${values.map((v) => (v >= 100 ? v.toFixed(0) : v.toFixed(2)).padStart(9)).join('')}   ${(values.at(-1)! / values[0]!).toFixed(1)}`,
    );
}

benchEdits();
await benchSaving(ofClips);
