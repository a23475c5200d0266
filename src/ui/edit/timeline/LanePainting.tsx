'use client';
import { useQueries } from '@tanstack/react-query';
import { memo, useLayoutEffect, useMemo, useRef } from 'react';
import { footageUrl } from '@/contract/footage';
import type { Clip, Lane } from '@/core/project/model';
import { isPictureLane, usedFootage } from '@/core/project/query';
import { useEditor } from '../store';
import { toPixels, type Sight } from './geometry';
import { useColors } from './use-colors';
import { paintThumbnails, paintWaveform } from './paint';

/** Narrower clips show neither pictures nor sound. */
const BLANK_PX = 40;
/** Of the lane's colour in the ground of a clip; of a clip that is muted. */
const TINT = 0.14;
const MUTED = 0.45;
const SHOWN = { picture: 0.6, sound: 0.7 } as const;

async function loadStrip(footageId: string): Promise<HTMLImageElement> {
  const image = new Image();
  image.src = footageUrl(footageId, 'thumbs');
  await image.decode();
  return image;
}

async function loadPeaks(footageId: string): Promise<Uint8Array> {
  const response = await fetch(footageUrl(footageId, 'peaks'));
  if (!response.ok) throw new Error('no waveform');
  return new Uint8Array(await response.arrayBuffer());
}

/** What was made of recordings at ingest to show them by, by footage. */
function useStandIns<T extends object>(
  kind: 'thumbs' | 'peaks',
  ids: readonly string[],
  versions: ReadonlyMap<string, string>,
  load: (id: string) => Promise<T>,
): ReadonlyMap<string, T> {
  return useQueries({
    queries: ids.map((id) => ({
      // Another file in the place of a recording has another length.
      queryKey: [kind, id, versions.get(id)],
      queryFn: () => load(id),
      staleTime: Infinity,
      retry: 3,
    })),
    combine: (all) =>
      new Map(all.flatMap(({ data }, i) => (data ? [[ids[i]!, data as T] as [string, T]] : []))),
  });
}

/**
 * The grounds of a lane's clips, with small views of their pictures or with their sound, as far as
 * they are in sight: on one canvas, since a change of scale changes all of them.
 */
export const LanePainting = memo(function LanePainting({
  lane,
  clips,
  height,
  sight,
}: {
  lane: Lane;
  /** Those that are drawn by themselves. */
  clips: readonly Clip[];
  height: number;
  sight: Sight;
}) {
  const scale = useEditor((s) => s.pixelsPerSecond);
  const footage = useEditor((s) => s.sources.footage);
  const views = useEditor((s) => s.footage);
  const colors = useColors();
  const canvas = useRef<HTMLCanvasElement>(null);
  const picture = isPictureLane(lane);
  // A take is placed before there is anything to show it by.
  const versions = useMemo(
    () =>
      new Map(
        views
          .filter(({ standIns }) => standIns.parts.includes(picture ? 'thumbs' : 'peaks'))
          .map(({ id, bytes, status }) => [id, `${bytes} ${status}`]),
      ),
    [views, picture],
  );
  const ids = useMemo(
    () =>
      [...usedFootage([{ clips }])].filter(
        (id) => versions.has(id) && (picture ? footage[id]?.hasVideo : footage[id]?.hasAudio),
      ),
    [clips, versions, footage, picture],
  );
  const strips = useStandIns('thumbs', picture ? ids : [], versions, loadStrip);
  const peaks = useStandIns('peaks', picture ? [] : ids, versions, loadPeaks);
  const left = Math.max(0, sight.from);
  const width = Math.max(1, Math.ceil(sight.to - left));
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const [ground, color] = [colors('sheet'), colors(`lane-${lane.kind}`)];
    context.clearRect(0, 0, width, height);
    for (const clip of clips) {
      const start = toPixels(clip.start, scale);
      const from = Math.max(0, left - start);
      const to = Math.min(Math.max(3, toPixels(clip.duration, scale)), left + width - start);
      const place = { left: start - left, top: 2, height: height - 4, from, to, scale };
      const fill = (style: string, alpha: number) => {
        context.globalAlpha = (clip.muted ? MUTED : 1) * alpha;
        context.fillStyle = style;
        context.fillRect(place.left + from, 1, to - from, height - 2);
      };
      fill(ground, 1);
      fill(color, TINT);
      if (toPixels(clip.duration, scale) < BLANK_PX) continue;
      const shown = clip.muted ? MUTED : 1;
      const known = footage[clip.footageId];
      const [strip, levels] = [strips.get(clip.footageId), peaks.get(clip.footageId)];
      context.globalAlpha = shown * (picture ? SHOWN.picture : SHOWN.sound);
      if (strip && known) paintThumbnails(context, strip, known, clip, place);
      context.fillStyle = color;
      if (levels) paintWaveform(context, levels, clip, clip.gain + lane.gain, place);
    }
  }, [lane, clips, footage, strips, peaks, picture, left, width, height, scale, colors]);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      className={`pointer-events-none absolute top-0 ${lane.off ? 'opacity-45' : ''}`}
      style={{ left, width, height }}
      aria-hidden
    />
  );
});
