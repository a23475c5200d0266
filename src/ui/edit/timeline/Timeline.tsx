'use client';
import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { projectDuration } from '@/core/project/query';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import type { Player } from '@/preview/player';
import { useSeek } from '../picture/use-player';
import { ItemMenu } from '../ItemMenu';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { AddLane } from './AddLane';
import { FramingGraph } from './FramingGraph';
import {
  HEADER_WIDTH,
  laneHeight,
  ROW,
  SCALES,
  sightOf,
  stackHeight,
  toPixels,
  toTime,
} from './geometry';
import { LaneHeader } from './LaneHeader';
import { LaneRow } from './LaneRow';
import { Overview } from './Overview';
import { Playhead, RangeBand, RubberBand } from './Overlays';
import { Ruler } from './Ruler';
import { SpanRow } from './SpanRow';
import { stackSpans } from './stack';
import { StepsRibbon } from './StepsRibbon';
import { Toolbar } from './Toolbar';
import { useFootageDrop } from './use-footage-drop';
import { useLaneMeters } from './use-lane-meters';
import { useRubberBand } from './use-rubber-band';
import { useWheelScale } from './use-wheel-scale';

/** Room after the end, so that the last clip's edge can be grabbed, in pixels. */
const TAIL_PX = 60;

export function Timeline({ player }: { player: Player | null }) {
  const store = useEditorStore();
  const project = useEditor((s) => s.project);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const seek = useSeek();
  const scroller = useRef<HTMLDivElement>(null);
  const [sight, setSight] = useState(() => sightOf(0, 1200));
  const { layouts, pointer, callouts } = project;
  const stacks = useMemo(
    () => ({
      layouts: stackSpans(layouts),
      pointer: stackSpans(pointer),
      callouts: stackSpans(callouts),
    }),
    [layouts, pointer, callouts],
  );
  const end = projectDuration(project);
  const width = toPixels(end + secondsToTicks(1), scale) + TAIL_PX;

  const fit = useCallback(() => {
    const room = (scroller.current?.clientWidth ?? 1200) - HEADER_WIDTH - TAIL_PX - 12;
    const seconds = Math.max(10, ticksToSeconds(projectDuration(store.getState().project)) + 1);
    store.setState({
      pixelsPerSecond: Math.min(SCALES.most, Math.max(SCALES.least, room / seconds)),
      scaleChosen: false,
    });
  }, [store]);
  useLayoutEffect(() => {
    const { scaleChosen, pixelsPerSecond } = store.getState();
    if (!scaleChosen) return fit();
    // As it was left: what was worked on is in sight.
    const element = scroller.current!;
    const x = toPixels(playheadOf(store.getState()), pixelsPerSecond);
    const room = element.clientWidth - HEADER_WIDTH;
    if (x > room) element.scrollLeft = x - room / 2;
  }, [fit, store]);
  // The command list asks for a fit by setting the scale to zero.
  useEffect(() => store.subscribe((now) => now.pixelsPerSecond === 0 && fit()), [store, fit]);
  useEffect(() => {
    const element = scroller.current!;
    const update = () =>
      setSight((before) => {
        const next = sightOf(element.scrollLeft, element.clientWidth);
        return next.from === before.from && next.to === before.to ? before : next;
      });
    const observer = new ResizeObserver(() => {
      // All of it is shown until somebody sets a scale.
      if (!store.getState().scaleChosen) fit();
      update();
    });
    observer.observe(element);
    element.addEventListener('scroll', update, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', update);
    };
  }, [fit, store]);
  // While playing, and when a command goes somewhere, the playhead is kept in sight.
  useEffect(
    () =>
      store.getState().transport.subscribe((now, before) => {
        const element = scroller.current;
        if (!element || now.playhead === before.playhead) return;
        const x = toPixels(now.playhead, store.getState().pixelsPerSecond);
        const room = element.clientWidth - HEADER_WIDTH;
        if (x < element.scrollLeft || x > element.scrollLeft + room - (now.rate ? 24 : 0))
          element.scrollLeft = x - room * (now.rate ? 0.1 : 0.5);
      }),
    [store],
  );

  useWheelScale(scroller);
  useLaneMeters(player, scroller);
  const { band, begin } = useRubberBand(scroller, (event) => {
    seek(
      Math.max(0, toTime(event.clientX - event.currentTarget.getBoundingClientRect().left, scale)),
    );
    store.getState().select(null);
  });
  const { ghost, handlers } = useFootageDrop();
  const row = (
    key: string,
    height: number,
    header: ReactNode,
    content: ReactNode,
    more: object = {},
  ) => (
    <div key={key} className="flex border-b border-line/60" style={{ height }}>
      <div
        className="sticky left-0 z-30 flex shrink-0 items-center gap-1.5 overflow-hidden border-r border-line bg-paper px-2 text-xs"
        style={{ width: HEADER_WIDTH }}
      >
        {header}
      </div>
      <div
        className="stretches relative shrink-0 grow [contain:layout_paint_style]"
        style={{ width }}
        onPointerDown={begin}
        {...more}
      >
        {content}
      </div>
    </div>
  );
  const spans = (
    list: 'layouts' | 'pointer' | 'callouts',
    name: string,
    kind: 'layout' | 'pointer' | 'callouts',
  ) => {
    const filled = project[list].length > 0;
    const stack = stacks[list];
    const height = stackHeight(ROW[kind], stack.rows);
    return row(
      kind,
      filled ? height : ROW.folded,
      filled && name,
      <SpanRow
        spans={project[list]}
        list={list}
        name={name}
        color={`lane-${kind}`}
        height={height}
        stack={stack}
        sight={sight}
      />,
      { 'data-list': list },
    );
  };
  return (
    <section
      aria-label="Timeline"
      className="grid h-full min-h-0 grid-rows-[32px_minmax(0,1fr)_auto]"
    >
      <Toolbar player={player} onFit={fit} />
      <ItemMenu player={player}>
        <div
          id="timeline-lanes"
          ref={scroller}
          className="relative overflow-auto"
          data-testid="timeline"
          {...handlers}
        >
          <div className="relative min-w-full" style={{ width: width + HEADER_WIDTH }}>
            <div
              className="sticky top-0 z-40 flex border-b border-line bg-paper"
              style={{ height: ROW.ruler }}
            >
              <div
                className="sticky left-0 z-30 flex shrink-0 items-center border-r border-line bg-paper px-2 text-xs"
                style={{ width: HEADER_WIDTH }}
              >
                <AddLane />
              </div>
              <div className="stretches relative shrink-0 grow overflow-clip" style={{ width }}>
                <Ruler from={sight.from} to={sight.to} onSeek={seek} />
              </div>
            </div>
            {row('steps', ROW.steps, 'Steps', <StepsRibbon end={end} sight={sight} />)}
            {spans('layouts', 'Layout', 'layout')}
            {row(
              'framing',
              ROW.framing,
              'Framing',
              <FramingGraph height={ROW.framing} end={end} sight={sight} />,
              {
                'data-list': 'framings',
              },
            )}
            {spans('pointer', 'Pointer', 'pointer')}
            {spans('callouts', 'Callouts', 'callouts')}
            {project.lanes.map((lane) => {
              const height = laneHeight(lane, project.lanes);
              return row(
                lane.id,
                height,
                height > ROW.folded && <LaneHeader lane={lane} />,
                <>
                  <LaneRow lane={lane} height={height} sight={sight} />
                  {ghost?.laneId === lane.id && <span className="absolute inset-0 bg-action/15" />}
                </>,
                { 'data-lane': lane.id },
              );
            })}
            <div
              className="stretches pointer-events-none absolute inset-y-0 right-0 z-20"
              style={{ left: HEADER_WIDTH }}
            >
              <RangeBand />
              {ghost && (
                <span
                  className="pointer-events-none absolute inset-y-0 z-20 w-0.5 bg-action"
                  style={{ left: toPixels(ghost.time, scale) }}
                />
              )}
              <Playhead />
            </div>
            <RubberBand band={band} />
          </div>
        </div>
      </ItemMenu>
      <Overview scroller={scroller} />
    </section>
  );
}
