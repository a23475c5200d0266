'use client';
import { memo, useMemo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import type { Callout, LayoutSpan, PointerSpan } from '@/core/project/model';
import { calloutName, pointerName } from '../names';
import { useEditor } from '../store';
import { Crumbs } from './Crumbs';
import type { Sight } from './geometry';
import { SpanView } from './SpanView';
import type { ColorName } from './use-colors';
import { selectedItems } from './selecting';
import { MOST_ROWS, type Stack } from './stack';
import { spansInSight, withoutBuried } from './visible';

type Span = Callout | LayoutSpan | PointerSpan;

const nameOf = (span: Span): string =>
  'anchor' in span ? calloutName(span) : 'looks' in span ? pointerName(span) : span.layout.name;

/** The layouts, looks of the pointer or callouts that are in sight. */
export const SpanRow = memo(function SpanRow({
  spans,
  list,
  name,
  color,
  height,
  stack,
  sight,
}: {
  spans: readonly Span[];
  list: 'layouts' | 'pointer' | 'callouts';
  name: string;
  color: ColorName;
  height: number;
  /** The rows that they lie in. */
  stack: Stack;
  sight: Sight;
}) {
  const scale = useEditor((s) => s.pixelsPerSecond);
  // What is selected is drawn wherever it lies.
  const chosen = useEditor(useShallow(selectedItems));
  const { alone, crumbs } = useMemo(() => {
    const seen = spansInSight(spans, sight, scale);
    const isCrowded = ({ id }: Span) =>
      stack.rowOf.get(id) === MOST_ROWS - 1 && !chosen.includes(id);
    return { ...seen, alone: withoutBuried(seen.alone, scale, isCrowded) };
  }, [spans, sight, scale, stack, chosen]);
  const each = (height - 1) / stack.rows;
  return (
    <>
      {crumbs.length > 0 && (
        <Crumbs
          crumbs={crumbs}
          label={`Short spans of ${name}`}
          color={color}
          off={false}
          height={height - 1}
          sight={sight}
        />
      )}
      {alone.map((span) => (
        <SpanView
          key={span.id}
          list={list}
          span={span}
          label={nameOf(span)}
          color={`var(--${color})`}
          top={1 + Math.round(each * (stack.rowOf.get(span.id) ?? 0))}
          height={Math.floor(each) - 2}
        />
      ))}
    </>
  );
});
