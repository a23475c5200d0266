import { assertNever } from '@/core/assert-never';
import type { LinesMark, WordsMark } from '@/core/frame/mark';
import type { Drawn } from '@/core/take/drawn';

/** What a drawing does with the pointer: it is wiped away, or lets it through. */
interface Touch {
  readonly onErase?: () => void;
}

/** Live drawings in the recording's pixels; stands inside an SVG of that size. */
export function DrawnShapes({
  drawn,
  onErase,
}: {
  drawn: readonly Drawn[];
  onErase?: (id: string) => void;
}) {
  return drawn.map(({ id, mark, opacity }, i) => {
    const touch = onErase && { onErase: () => onErase(id) };
    switch (mark.kind) {
      case 'words':
        return <Words key={`${id} ${i}`} mark={mark} {...touch} />;
      case 'lines':
        return <Lines key={`${id} ${i}`} mark={mark} opacity={opacity} {...touch} />;
      case 'outline':
      case 'disc':
      case 'pointer':
      case 'keys':
      case 'picture':
        // Nothing that is drawn live is made of these.
        return null;
      default:
        return assertNever(mark);
    }
  });
}

function Words({ mark, onErase }: Touch & { mark: WordsMark }) {
  return (
    <text
      x={mark.tip.x}
      y={mark.tip.y}
      fill={mark.fill ?? mark.ink}
      fontSize={mark.fontSize}
      fontWeight={600}
      textAnchor="middle"
      dominantBaseline="middle"
      paintOrder="stroke"
      stroke="var(--sheet)"
      strokeWidth={mark.fontSize / 6}
      onPointerDown={onErase}
    >
      {mark.text}
    </text>
  );
}

function Lines({ mark, opacity, onErase }: Touch & { mark: LinesMark; opacity: number }) {
  const text = (path: LinesMark['paths'][number]) => path.map((p) => `${p.x},${p.y}`).join(' ');
  return (
    <g
      fill="none"
      stroke={mark.color}
      strokeWidth={mark.width}
      strokeLinecap="round"
      strokeLinejoin="round"
      opacity={opacity}
      onPointerDown={onErase}
      onPointerEnter={onErase && ((e) => e.buttons && onErase())}
      pointerEvents={onErase ? 'stroke' : 'none'}
    >
      {mark.paths.map((path, i) => {
        if (mark.closed) return <polygon key={i} points={text(path)} />;
        // A tap of the pen is a dot.
        const [first] = path;
        const dot = path.length === 1 && first ? [first, { x: first.x + 0.1, y: first.y }] : path;
        return <polyline key={i} points={text(dot)} />;
      })}
    </g>
  );
}
