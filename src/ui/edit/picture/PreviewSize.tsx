'use client';
import { Type } from '@sinclair/typebox';
import { useEffect, useState } from 'react';
import type { Player } from '@/preview/player';
import { keep, kept } from '../../parts/kept';

/** Where the browser keeps how large the preview is drawn. */
const KEPT_AS = 'vistum-preview-lines';
const SIZES = [360, 540, 720, 1080, 1440, 2160];

const Lines = Type.Number({ minimum: SIZES[0], maximum: SIZES.at(-1) });

/** How many lines the preview is drawn with: fewer play more smoothly, more show more detail. */
export function PreviewSize({ player }: { player: Player | null }) {
  const [lines, setLines] = useState(() => kept(KEPT_AS, Lines));
  useEffect(() => {
    player?.setLines(lines);
    keep(KEPT_AS, lines);
  }, [player, lines]);
  return (
    <select
      aria-label="Preview size"
      title="How large the preview is drawn; exports do not hear of it. Auto: 720 lines, and fewer while the machine does not keep up."
      className="numbers hidden h-6 w-20 rounded-(--radius) border border-transparent bg-transparent text-xs hover:border-line @2xl:block"
      value={lines ?? 'automatic'}
      onChange={(e) => setLines(Number(e.target.value) || null)}
    >
      <option value="automatic">Auto</option>
      {SIZES.map((size) => (
        <option key={size} value={size}>
          {size} lines
        </option>
      ))}
    </select>
  );
}
