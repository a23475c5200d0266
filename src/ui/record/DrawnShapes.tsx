import type { Drawn } from '@/core/take/drawn';

/** Live drawings in the recording's pixels; stands inside an SVG of that size. */
export function DrawnShapes({
  drawn,
  onErase,
}: {
  drawn: readonly Drawn[];
  onErase?: (id: string) => void;
}) {
  return drawn.map((d) =>
    d.kind === 'words' ? (
      <text
        key={d.id}
        x={d.x}
        y={d.y}
        fill={d.color}
        fontSize={d.size}
        fontWeight={600}
        textAnchor="middle"
        dominantBaseline="middle"
        paintOrder="stroke"
        stroke="var(--sheet)"
        strokeWidth={d.size / 6}
        onPointerDown={onErase && (() => onErase(d.id))}
      >
        {d.text}
      </text>
    ) : (
      <g
        key={d.id}
        fill="none"
        stroke={d.color}
        strokeWidth={d.width}
        strokeLinecap="round"
        strokeLinejoin="round"
        opacity={d.see ? 0.4 : 1}
        onPointerDown={onErase && (() => onErase(d.id))}
        onPointerEnter={onErase && ((e) => e.buttons && onErase(d.id))}
        pointerEvents={onErase ? 'stroke' : 'none'}
      >
        {d.paths.map((path, i) =>
          d.closed ? (
            <polygon key={i} points={path.map((p) => `${p.x},${p.y}`).join(' ')} />
          ) : (
            <polyline
              key={i}
              points={(path.length === 1
                ? [path[0]!, { x: path[0]!.x + 0.1, y: path[0]!.y }]
                : path
              )
                .map((p) => `${p.x},${p.y}`)
                .join(' ')}
            />
          ),
        )}
      </g>
    ),
  );
}
