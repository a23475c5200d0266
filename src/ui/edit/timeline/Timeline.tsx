'use client';
import { Magnet, Maximize2, Redo2, Scissors, Undo2, WandSparkles, ZoomIn, ZoomOut } from 'lucide-react';
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import type { Lane } from '@/core/project/model';
import { placedSteps, projectDuration } from '@/core/project/query';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import type { Player } from '@/preview/player';
import { Button } from '../../parts/Button';
import { IconButton } from '../../parts/IconButton';
import { editorCommands } from '../commands';
import { calloutName, LAYOUT_NAMES } from '../names';
import { useSeek } from '../picture/use-player';
import { useEditor, useEditorStore } from '../store';
import { ClipView } from './ClipView';
import { FramingGraph } from './FramingGraph';
import { HEADER_WIDTH, ROW, toPixels, toTime } from './geometry';
import { LaneHeader } from './LaneHeader';
import { Ruler } from './Ruler';
import { SpanView } from './SpanView';

const NO_OPENERS = { commands: () => {}, keys: () => {}, exporting: () => {} };
/** Room after the end, so that the last clip's edge can be grabbed. */
const TAIL_SECONDS = 4;

export function Timeline({ player }: { player: Player | null }) {
  const store = useEditorStore();
  const project = useEditor((s) => s.project);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const seek = useSeek(player);
  const scroller = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState({ left: 0, width: 1200 });
  const end = projectDuration(project);
  const width = toPixels(end + secondsToTicks(TAIL_SECONDS), scale);

  const fit = useCallback(() => {
    const room = (scroller.current?.clientWidth ?? 1200) - HEADER_WIDTH - 12;
    const seconds = Math.max(10, ticksToSeconds(projectDuration(store.getState().project)) + 1);
    store.setState({ pixelsPerSecond: Math.max(0.5, room / seconds) });
  }, [store]);
  useLayoutEffect(() => fit(), [fit]);
  // The command list asks for a fit by setting the scale to zero.
  useEffect(() => store.subscribe((now) => now.pixelsPerSecond === 0 && fit()), [store, fit]);
  useEffect(() => {
    const element = scroller.current!;
    const update = () => setSeen({ left: element.scrollLeft, width: element.clientWidth });
    const observer = new ResizeObserver(update);
    observer.observe(element);
    element.addEventListener('scroll', update, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', update);
    };
  }, []);
  // While playing, the playhead is kept in sight.
  useEffect(
    () =>
      store.subscribe((now, before) => {
        const element = scroller.current;
        if (!element || now.playhead === before.playhead || !now.rate) return;
        const x = toPixels(now.playhead, now.pixelsPerSecond);
        const room = element.clientWidth - HEADER_WIDTH;
        if (x < element.scrollLeft || x > element.scrollLeft + room - 24) element.scrollLeft = x - room * 0.1;
      }),
    [store],
  );

  const inSight = (start: number, stop: number) =>
    toPixels(stop, scale) >= seen.left - 200 && toPixels(start, scale) <= seen.left + seen.width + 200;
  const onWheel = (event: React.WheelEvent) => {
    if (!event.ctrlKey && !event.metaKey) return;
    const element = scroller.current!;
    const x = event.clientX - element.getBoundingClientRect().left - HEADER_WIDTH;
    const time = toTime(element.scrollLeft + x, scale);
    const next = Math.min(400, Math.max(0.5, scale * (event.deltaY < 0 ? 1.2 : 1 / 1.2)));
    store.setState({ pixelsPerSecond: next });
    requestAnimationFrame(() => (element.scrollLeft = toPixels(time, next) - x));
  };
  const pressEmpty = (event: React.PointerEvent) => {
    if (event.target !== event.currentTarget) return;
    seek(Math.max(0, toTime(event.clientX - event.currentTarget.getBoundingClientRect().left, scale)));
    store.getState().select(null);
  };
  const row = (key: string, height: number, header: ReactNode, content: ReactNode, more: object = {}) => (
    <div key={key} className="flex border-b border-line/60" style={{ height }}>
      <div
        className="sticky left-0 z-20 flex shrink-0 items-center gap-1.5 overflow-hidden border-r border-line bg-paper px-2 text-xs"
        style={{ width: HEADER_WIDTH }}
      >
        {header}
      </div>
      <div className="relative shrink-0" style={{ width }} onPointerDown={pressEmpty} {...more}>
        {content}
      </div>
    </div>
  );
  const spanHeight = (filled: boolean, height: number) => (filled ? height : ROW.folded);
  return (
    <section aria-label="Timeline" className="grid min-h-0 grid-rows-[32px_minmax(0,1fr)]">
      <Toolbar player={player} onFit={fit} />
      <div ref={scroller} className="relative overflow-auto" onWheel={onWheel} data-testid="timeline">
        <div className="relative" style={{ width: width + HEADER_WIDTH }}>
          <div className="sticky top-0 z-30 flex border-b border-line bg-paper" style={{ height: ROW.ruler }}>
            <div className="sticky left-0 z-30 shrink-0 border-r border-line bg-paper" style={{ width: HEADER_WIDTH }} />
            <div className="relative shrink-0" style={{ width }}>
              <Ruler from={seen.left} to={seen.left + seen.width} onSeek={seek} />
            </div>
          </div>
          {row('steps', ROW.steps, 'Steps', <StepsRibbon end={end} />)}
          {row(
            'layout',
            spanHeight(project.layouts.length > 0, ROW.layout),
            project.layouts.length > 0 && 'Layout',
            project.layouts.map((span) => (
              <SpanView
                key={span.id}
                list="layouts"
                span={span}
                label={LAYOUT_NAMES[span.kind]}
                color="var(--lane-layout)"
                height={ROW.layout - 3}
              />
            )),
          )}
          {row('framing', ROW.framing, 'Framing', <FramingGraph height={ROW.framing} end={end} />)}
          {row(
            'pointer',
            spanHeight(project.pointer.length > 0, ROW.pointer),
            project.pointer.length > 0 && 'Pointer',
            project.pointer.map((span) => (
              <SpanView key={span.id} list="pointer" span={span} label="halo" color="var(--lane-pointer)" height={ROW.pointer - 3} />
            )),
          )}
          {row(
            'callouts',
            spanHeight(project.callouts.length > 0, ROW.callouts),
            project.callouts.length > 0 && 'Callouts',
            project.callouts
              .filter((c) => inSight(c.start, c.end))
              .map((span) => (
                <SpanView
                  key={span.id}
                  list="callouts"
                  span={span}
                  label={calloutName(span)}
                  color="var(--lane-callouts)"
                  height={ROW.callouts - 3}
                />
              )),
          )}
          {project.lanes.map((lane) => {
            const height = lane.clips.length ? ROW[lane.kind] : ROW.folded;
            return row(
              lane.id,
              height,
              lane.clips.length > 0 && <LaneHeader lane={lane} />,
              lane.clips.map((clip, i) =>
                inSight(clip.start, clip.start + clip.duration) ? (
                  <ClipView key={clip.id} clip={clip} lane={lane} height={height} notch={removedBefore(lane, i)} />
                ) : null,
              ),
              { 'data-lane': lane.id },
            );
          })}
          <Playhead />
        </div>
      </div>
    </section>
  );
}

/** Seconds of footage that were taken out at the join before a clip; null where it begins anew or simply goes on. */
function removedBefore(lane: Lane, index: number): number | null {
  const before = lane.clips[index - 1];
  const clip = lane.clips[index]!;
  if (!before || before.footageId !== clip.footageId || before.start + before.duration !== clip.start) return null;
  const gone = clip.source - (before.source + before.duration);
  return gone > 0 ? ticksToSeconds(gone) : null;
}

function Toolbar({ player, onFit }: { player: Player | null; onFit: () => void }) {
  const store = useEditorStore();
  const snapping = useEditor((s) => s.snapping);
  const undoLabel = useEditor((s) => s.history.done.at(-1)?.label);
  const redoLabel = useEditor((s) => s.history.undone.at(-1)?.label);
  const run = (id: string) =>
    editorCommands(store, player, NO_OPENERS)
      .find((c) => c.id === id)
      ?.run();
  return (
    <div className="flex items-center gap-1 border-b border-line bg-sheet px-2">
      <IconButton
        icon={Undo2}
        label={undoLabel ? `Undo: ${undoLabel}` : 'Undo'}
        keys="Ctrl+Z"
        disabled={!undoLabel}
        onClick={() => run('undo')}
      />
      <IconButton
        icon={Redo2}
        label={redoLabel ? `Redo: ${redoLabel}` : 'Redo'}
        keys="Ctrl+Shift+Z"
        disabled={!redoLabel}
        onClick={() => run('redo')}
      />
      <IconButton icon={Scissors} label="Split at the playhead" keys="B" onClick={() => run('split')} />
      <IconButton icon={Magnet} label="Snapping" pressed={snapping} onClick={() => run('snapping')} />
      <span className="mx-1 h-4 border-l border-line" />
      <Button look="quiet" onClick={() => run('plan')}>
        <WandSparkles size={14} aria-hidden /> Plan framings
      </Button>
      {(['framing', 'halo', 'callout', 'cover', 'presenter'] as const).map((id) => (
        <Button key={id} look="quiet" onClick={() => run(id)}>
          {{ framing: 'Framing', halo: 'Halo', callout: 'Callout', cover: 'Cover', presenter: 'Presenter' }[id]}
        </Button>
      ))}
      <span className="flex-1" />
      <IconButton icon={ZoomOut} label="Smaller timeline scale" keys="-" onClick={() => run('scale-down')} />
      <IconButton icon={ZoomIn} label="Larger timeline scale" keys="+" onClick={() => run('scale-up')} />
      <IconButton icon={Maximize2} label="Fit the timeline" keys="0" onClick={onFit} />
    </div>
  );
}

function StepsRibbon({ end }: { end: number }) {
  const project = useEditor((s) => s.project);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selection = useEditor((s) => s.selection);
  const select = useEditor((s) => s.select);
  const steps = placedSteps(project);
  return steps.map((step, i) => (
    <button
      key={step.id}
      className={`absolute top-0.5 truncate border-l-2 px-1 text-left text-[11px] ${selection?.kind === 'step' && selection.id === step.id ? 'border-action bg-action text-on-action' : 'border-ink-2 bg-line/40'}`}
      style={{
        left: toPixels(step.start, scale),
        width: Math.max(4, toPixels((steps[i + 1]?.start ?? Math.max(end, step.start)) - step.start, scale) - 2),
        height: ROW.steps - 5,
      }}
      onClick={() => select({ kind: 'step', id: step.id })}
    >
      {project.steps.findIndex((s) => s.id === step.id) + 1} {step.title}
    </button>
  ));
}

function Playhead() {
  const playhead = useEditor((s) => s.playhead);
  const scale = useEditor((s) => s.pixelsPerSecond);
  return (
    <div
      className="pointer-events-none absolute inset-y-0 left-0 z-10 w-px bg-playhead will-change-transform"
      style={{ transform: `translateX(${HEADER_WIDTH + toPixels(playhead, scale)}px)` }}
      data-testid="playhead"
    >
      <span className="sticky top-0 block size-2 -translate-x-1/2 bg-playhead" />
    </div>
  );
}
