'use client';
import type { Box, Layout } from '@/core/layout/model';
import type { PresenterPlacement } from '@/core/layout/placement';
import { useEditor } from './store';

/** The small picture of a wide one, in CSS pixels; that of an upright one is as high. */
const SIDE = { width: 48, height: 27 } as const;
/** Where the small picture has a presenter who is placed by the project. */
const CORNER: Box = { x: 0.7, y: 0.58, width: 0.22, height: 0.36 };

/** Corners of the presenter's outlines, as far as they are told at that size. */
const CORNERS: Readonly<Record<PresenterPlacement['shape'], { rx?: string; ry?: string }>> = {
  ...{ circle: { rx: '50%', ry: '50%' }, ellipse: { rx: '50%', ry: '50%' } },
  ...{
    own: { rx: '5' },
    squircle: { rx: '5' },
    rounded: { rx: '3' },
    portrait: { rx: '3' },
    rectangle: {},
  },
};

/** What of a layout's own background is told at that size. */
function ground(background: Layout['background']): React.CSSProperties {
  if (!background || (typeof background === 'object' && 'footageId' in background)) return {};
  if (typeof background === 'string') return { background };
  return { background: `linear-gradient(to bottom right, ${background.from}, ${background.to})` };
}

/** A layout as a small picture. */
export function LayoutSketch({ layout: { background, screen, presenter } }: { layout: Layout }) {
  const { width, height } = useEditor((s) => s.project.canvas);
  const side = { ...SIDE, width: Math.min(SIDE.width, (SIDE.height * width) / height) };
  const person = presenter === 'placed' ? CORNER : presenter?.box;
  const shape = useEditor((s) => s.project.presenter.shape);
  const outline = presenter === 'placed' ? shape : (presenter?.shape ?? 'rectangle');
  const box = ({ x, y, width, height }: Box) => ({
    ...{ x: x * side.width, y: y * side.height },
    ...{ width: width * side.width, height: height * side.height },
  });
  return (
    <span className="flex w-12 shrink-0 justify-center">
      <svg {...side} aria-hidden className="border border-line bg-paper" style={ground(background)}>
        {screen && <rect {...box(screen.box)} fill="var(--lane-screen)" />}
        {person && <rect {...box(person)} {...CORNERS[outline]} fill="var(--lane-presenter)" />}
      </svg>
    </span>
  );
}
