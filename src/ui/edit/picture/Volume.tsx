'use client';
import { Type } from '@sinclair/typebox';
import { Volume2, VolumeX } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Player } from '@/preview/player';
import { IconButton } from '../../parts/IconButton';
import { keep, kept } from '../../parts/kept';
import { METER_FLOOR_DB, meterColor, meterShare } from '../meter';
import { useTransport } from '../store';

/** Where the browser keeps how loud the preview is. */
const KEPT_AS = 'vistum-volume';

const Share = Type.Number({ minimum: 0, maximum: 1 });

/**
 * How loud the preview is, which no export hears of, and the level of the mix while it plays: as it
 * is exported, whatever the volume.
 */
export function Volume({ player }: { player: Player | null }) {
  const [volume, setVolume] = useState(() => kept(KEPT_AS, Share) ?? 1);
  const before = useRef(1);
  useEffect(() => {
    player?.setVolume(volume);
    keep(KEPT_AS, volume);
  }, [player, volume]);
  const mute = () => {
    if (volume > 0) before.current = volume;
    setVolume(volume > 0 ? 0 : before.current);
  };
  return (
    <span className="flex items-center gap-1">
      <IconButton
        icon={volume > 0 ? Volume2 : VolumeX}
        label={volume > 0 ? 'Mute the preview' : 'Unmute the preview'}
        onClick={mute}
      />
      <input
        type="range"
        aria-label="Volume of the preview"
        title="Volume of the preview; exports do not hear of it"
        className="hidden w-12 accent-(--action) @2xl:block"
        min={0}
        max={1}
        step={0.05}
        value={volume}
        onChange={(e) => setVolume(Number(e.target.value))}
      />
      <Meter player={player} />
    </span>
  );
}

/** The peak of the mix while it plays. */
function Meter({ player }: { player: Player | null }) {
  const playing = useTransport((t) => t.rate === 1);
  const bar = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const element = bar.current;
    if (!element || !player) return;
    let held = METER_FLOOR_DB;
    let frame = 0;
    const draw = () => {
      // It falls slowly, so that a peak can be seen.
      held = Math.max(player.level, held - 0.7);
      element.style.transform = `scaleX(${meterShare(held)})`;
      element.style.backgroundColor = meterColor(held);
      frame = requestAnimationFrame(draw);
    };
    if (playing) draw();
    else element.style.transform = 'scaleX(0)';
    return () => cancelAnimationFrame(frame);
  }, [player, playing]);
  return (
    <span
      className="hidden h-2 w-10 overflow-hidden @md:block border border-line bg-paper"
      title={`Level of the mix, ${METER_FLOOR_DB} to 0 dBFS`}
      aria-hidden
    >
      <span
        ref={bar}
        data-testid="meter"
        className="block h-full origin-left"
        style={{ transform: 'scaleX(0)' }}
      />
    </span>
  );
}
