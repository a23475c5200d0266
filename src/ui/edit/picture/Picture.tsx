'use client';
import { useLayoutEffect, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { MOST_SAMPLES } from '@/core/project/model';
import { visibleClip } from '@/core/project/query';
import type { Player } from '@/preview/player';
import { ItemMenu } from '../ItemMenu';
import type { EditorState } from '../session/state';
import { playheadOf, selectedSpans, useEditor, useEditorStore } from '../store';
import { CalloutHandles } from './CalloutHandles';
import { BeingPrepared } from './BeingPrepared';
import { EmptyPicture } from './EmptyPicture';
import { FramingDraw } from './FramingDraw';
import { LayoutHandles } from './LayoutHandles';
import { PathHandles } from './PathHandles';
import { PenDraw } from './PenDraw';
import { PictureHits } from './PictureHits';
import { PrivateMarks } from './PrivateMarks';
import { PresenterHandles } from './PresenterHandles';
import { FramingHandles } from './FramingHandles';
import { noteOf } from './note';
import { ShapeDraw } from './ShapeDraw';
import { SnapLines } from './SnapLines';

/** More handles than these would hide the Picture. */
const MOST_HANDLES = 24;

/** The selected callouts and covers whose handles are shown. */
const selectedCallouts = (state: EditorState): readonly string[] =>
  selectedSpans(state)
    .filter((id) => state.project.callouts.some((c) => c.id === id))
    .slice(0, MOST_HANDLES);

/** What is pressed was selected by then. */
const keepSelection = () => {};

/** The composed picture on its grey surround, with handles for what is selected. */
export function Picture({
  canvasRef,
  player,
}: {
  canvasRef: (canvas: HTMLCanvasElement | null) => void;
  player: Player | null;
}) {
  const store = useEditorStore();
  const width = useEditor((s) => s.project.canvas.width);
  const height = useEditor((s) => s.project.canvas.height);
  const empty = useEditor((s) => s.project.lanes.every((lane) => !lane.clips.length));
  const picking = useEditor((s) => s.picking);
  const selection = useEditor((s) => s.selection);
  const drawing = useEditor((s) => s.drawing);
  const restingOn = useEditor((s) => s.restingOn);
  const callouts = useEditor(useShallow(selectedCallouts));
  const note = useEditor(noteOf);
  // Nothing else is done with the next press on it.
  const free = useEditor(
    (s) =>
      !s.picking &&
      !s.drawing &&
      !s.view.whole &&
      !s.view.presenter &&
      s.selection?.kind !== 'path',
  );
  const surround = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 640, height: 360 });
  useLayoutEffect(() => {
    const element = surround.current!;
    const observer = new ResizeObserver(() =>
      setRoom({ width: element.clientWidth - 16, height: element.clientHeight - 16 }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const scale = Math.min(room.width / width, room.height / height);
  const size = { width: Math.max(16, width * scale), height: Math.max(16, height * scale) };

  const pick = async (event: React.MouseEvent) => {
    if (!picking || !player) return;
    const box = event.currentTarget.getBoundingClientRect();
    const color = await player.pickColor(
      (event.clientX - box.left) / box.width,
      (event.clientY - box.top) / box.height,
    );
    const { project, apply } = store.getState();
    const clip = visibleClip(project, 'presenter', playheadOf(store.getState()));
    const samples = clip && project.keys.find((k) => k.footageId === clip.footageId)?.samples;
    const what =
      picking === 'sample' && samples && color
        ? { samples: [...samples, color].slice(-MOST_SAMPLES) }
        : { color: color ?? '', on: true, wall: null };
    if (color && clip) apply('change-key', { footageId: clip.footageId, change: what });
    store.setState({ picking: null, view: {} });
  };

  return (
    <div ref={surround} className="relative flex min-h-0 items-center justify-center bg-surround">
      <div
        className="relative touch-none"
        style={size}
        onClick={(e) => void pick(e)}
        data-testid="picture"
      >
        <canvas
          ref={canvasRef}
          className={`size-full ${picking ? 'cursor-crosshair' : ''}`}
          role="img"
          aria-label="The Picture at the playhead"
        />
        <ItemMenu player={player} onOpen={keepSelection}>
          <div className="absolute inset-0 overflow-hidden">
            {free && <PictureHits scale={scale} />}
            {drawing === 'framing' && <FramingDraw scale={scale} />}
            {(drawing === 'pen' || drawing === 'marker') && <PenDraw pen={drawing} scale={scale} />}
            {drawing && typeof drawing === 'object' && <ShapeDraw shape={drawing} scale={scale} />}
            {free && selection?.kind === 'presenter' && <PresenterHandles scale={scale} />}
            {free && selection?.kind === 'layouts' && (
              <LayoutHandles id={selection.id} scale={scale} />
            )}
            {selection?.kind === 'path' && (
              <PathHandles footageId={selection.footageId} scale={scale} />
            )}
            {selection?.kind === 'private' && (
              <PrivateMarks footageId={selection.footageId} scale={scale} />
            )}
            {!drawing && selection?.kind === 'framings' && (
              <FramingHandles id={selection.id} scale={scale} />
            )}
            {callouts.map((id, i) => (
              <CalloutHandles key={id} id={id} scale={scale} first={i === 0} />
            ))}
            <SnapLines lines={restingOn} />
          </div>
        </ItemMenu>
        {empty && <EmptyPicture />}
        {!empty && <BeingPrepared />}
      </div>
      {note && (
        <p className="absolute bottom-1 left-1/2 -translate-x-1/2 bg-sheet px-2 py-0.5 text-xs">
          {note}
        </p>
      )}
    </div>
  );
}
