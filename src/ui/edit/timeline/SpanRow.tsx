'use client';
import { memo, useMemo } from 'react';
import type { Callout, LayoutSpan, PointerSpan } from '@/core/project/model';
import { calloutName, pointerName } from '../names';
import { useEditor } from '../store';
import { Crumbs } from './Crumbs';
import type { Sight } from './geometry';
import { SpanView } from './SpanView';
import type { ColorName } from './use-colors';
import type { Stack } from './stack';
import { spansInSight } from './visible';

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
  const { alone, crumbs } = useMemo(() => spansInSight(spans, sight, scale), [spans, sight, scale]);
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
