'use client';
import type { CSSProperties, PointerEvent } from 'react';
import type { Handle, Move } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import { calloutScene } from '@/core/frame/callout-layers';
import { sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { useEditor, useEditorStore, useTransport } from '../store';
import { followDrag } from './drag';

/** An area can be taken hold of even where it is narrower. */
const LEAST_AREA = 12;

/** What handles look like; the words of a text are larger than the box that stands for them. */
const LOOKS: Readonly<Record<Handle['look'], string>> = {
  point: 'size-4 -translate-1/2 rounded-full border-2 border-ink bg-sheet/80 cursor-move',
  words: 'h-6 w-16 -translate-1/2 border-2 border-dashed border-ink bg-sheet/30 cursor-move',
  area: 'border-2 border-dashed border-playhead cursor-move',
  corner: 'size-3 -translate-1/2 border-2 border-ink bg-sheet cursor-nwse-resize',
};

function Note({ children }: { children: string }) {
  return <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">{children}</p>;
}

/** Handles of the selected callout, as its kind says. */
export function CalloutHandles({ id, scale }: { id: string; scale: number }) {
  const store = useEditorStore();
  const callout = useEditor((s) => s.project.callouts.find((c) => c.id === id));
  const sources = useEditor((s) => s.sources);
  const project = useEditor((s) => s.project);
  const playhead = useTransport((t) => t.playhead);
  if (!callout) return null;
  if (!contains(callout, playhead))
    return <Note>The playhead is outside this callout; go to it to move it.</Note>;
  const on = calloutScene(sceneAt(project, sources, playhead), callout);
  if (!on) return <Note>What this callout stands on is not shown here.</Note>;
  const kind = kindOf(callout);
  const ratio = on.scale * scale;
  const styleOf = ({ at, shift, size }: Handle): CSSProperties => {
    const { x, y } = on.toOutput(at);
    return {
      left: (x + shift.dx) * scale,
      top: (y + shift.dy) * scale,
      ...(size && {
        width: Math.max(LEAST_AREA, size.width * ratio),
        height: Math.max(LEAST_AREA, size.height * ratio),
      }),
    };
  };
  const drag = (event: PointerEvent, handle: Handle) => {
    const under = store.getState().drag();
    followDrag(event, (dx, dy) => {
      const move: Move = {
        by: { dx: dx / ratio, dy: dy / ratio },
        frame: { dx: dx / scale, dy: dy / scale },
      };
      under.to('change-callout', { id, change: kind.withHandle(callout, handle.id, move) });
    });
  };
  return kind
    .handles(callout)
    .map((handle) => (
      <span
        key={handle.id}
        className={`absolute ${LOOKS[handle.look]}`}
        style={styleOf(handle)}
        data-testid={`callout-${handle.id}`}
        title={handle.label}
        onPointerDown={(event) => drag(event, handle)}
      />
    ));
}
