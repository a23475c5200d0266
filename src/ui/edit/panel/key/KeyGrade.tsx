'use client';
import { useState } from 'react';
import { assertNever } from '@/core/assert-never';
import type { MatteGrade } from '@/core/key/grade';
import { gradeLines, type GradeMark } from '@/core/key/grade-lines';
import type { FootageKey } from '@/core/project/model';
import { Button } from '../../../parts/Button';
import { playheadOf, useEditorStore, useSession } from '../../store';

const NAMES: Readonly<Record<keyof MatteGrade, string>> = {
  noise: 'Left of the background',
  holes: 'Holes in the presenter',
  edge: 'Width of the outline',
  spill: 'Its light on the outline',
};
const MARKS: Readonly<Record<GradeMark, string>> = { good: 'good', fair: 'fair', poor: 'poor' };
const INK: Readonly<Record<GradeMark, string>> = {
  ...{ good: 'text-ink-2', fair: 'text-ink', poor: 'text-caution' },
};

function shown(what: keyof MatteGrade, value: number): string {
  switch (what) {
    case 'noise':
    case 'holes':
      return `${(value * 100).toFixed(1)} %`;
    case 'edge':
      return `${value.toFixed(1)} px`;
    case 'spill':
      return value.toFixed(1);
    default:
      return assertNever(what);
  }
}

/** Grades a key in the picture at the playhead, and says what would make it better. */
export function KeyGrade({ value }: { value: FootageKey }) {
  const store = useEditorStore();
  const session = useSession();
  const [graded, setGraded] = useState<
    | { readonly key: FootageKey; readonly grade: MatteGrade | null; readonly at: number }
    | 'grading'
    | null
  >(null);
  const grade = () => {
    setGraded('grading');
    const at = playheadOf(store.getState());
    void session
      .gradeKey(at)
      .catch(() => null)
      .then((found) => setGraded({ key: value, grade: found, at }));
  };
  const found = graded !== 'grading' && graded?.key === value ? graded : null;
  return (
    <div className="grid gap-1">
      <Button onClick={grade} disabled={graded === 'grading'}>
        {found ? 'Grade it again' : 'Grade the key here'}
      </Button>
      {found && !found.grade && (
        <p className="text-xs text-ink-2" role="status">
          Nobody is seen in this picture. Put the playhead where the presenter is.
        </p>
      )}
      {found?.grade && (
        <dl className="grid gap-1 text-xs" aria-label="Grade of the key">
          {gradeLines(found.grade, value.method === 'wall').map(({ what, mark, advice }) => (
            <div key={what} className={INK[mark]}>
              <dt className="inline">{NAMES[what]}: </dt>
              <dd className="inline">
                <span className="font-mono">{shown(what, found.grade![what])}</span>, {MARKS[mark]}.{' '}
                {advice}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
