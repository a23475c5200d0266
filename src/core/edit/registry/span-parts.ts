import { Type } from '@sinclair/typebox';
import { kindOf } from '../../callout/kinds';
import type { Callout, Project } from '../../project/model';
import type { SpanList } from '../../project/span-lists';
import { findSpan, type Span, type SpanChange } from '../spans';

/** What a span is called in the middle of a sentence. */
export function nameOf(project: Project, id: string): string {
  const found = findSpan(project, id);
  switch (found?.list) {
    case 'callouts':
      return kindOf(found.span as Callout).name;
    case 'framings':
      return 'framing';
    case 'layouts':
      return 'layout';
    case 'pointer':
      return 'pointer look';
    default:
      return 'thing';
  }
}

/** A change of some properties of a span; the schema of the whole document has the last word. */
export const changeOf = <L extends SpanList>() =>
  Type.Unsafe<SpanChange<Span<L>>>({ type: 'object' });
