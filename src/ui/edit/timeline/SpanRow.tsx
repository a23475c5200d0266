'use client';
import { memo, useMemo } from 'react';
import type { Callout, LayoutSpan, PointerSpan } from '@/core/project/model';
import { calloutName, pointerName } from '../names';
import { useEditor } from '../store';
import { Crumbs } from './Crumbs';
import type { Sight } from './geometry';
import { SpanView } from './SpanView';
import type { ColorName } from './use-colors';
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
  sight,
}: {
  spans: readonly Span[];
  list: 'layouts' | 'pointer' | 'callouts';
  name: string;
  color: ColorName;
  height: number;
  sight: Sight;
}) {
  const scale = useEditor((s) => s.pixelsPerSecond);
  const { alone, crumbs } = useMemo(() => spansInSight(spans, sight, scale), [spans, sight, scale]);
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
          height={height - 3}
        />
      ))}
    </>
  );
});
