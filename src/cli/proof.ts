import { mkdir } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { exportOf } from '@/server/db/rows/exports';
import { runMedia } from '@/server/media/process';
import { coversOf } from '@/server/proof/covered';
import { findingsOf } from '@/server/proof/findings';
import { proofCovers } from '@/server/proof/proof-covers';
import { notFound } from '@/server/problem';
import { required, UsageError } from './arguments';
import type { Answer, Call } from './call';

/** Around a place that leaks so much of the picture is shown, in pixels. */
const AROUND = 60;

/** A picture of an exported file around a place, as a file. */
async function pictureOf(
  video: string,
  seconds: number,
  rect: { x: number; y: number; width: number; height: number },
  size: { width: number; height: number },
  out: string,
): Promise<void> {
  const [x, y] = [
    Math.max(0, Math.floor(rect.x - AROUND)),
    Math.max(0, Math.floor(rect.y - AROUND)),
  ];
  const width = Math.min(size.width - x, Math.ceil(rect.width + 2 * AROUND));
  const height = Math.min(size.height - y, Math.ceil(rect.height + 2 * AROUND));
  await runMedia('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-ss', seconds.toFixed(4), '-i', video],
    ...['-vf', `crop=${width}:${height}:${x}:${y}`, '-frames:v', '1', out],
  ]);
}

/** `vistum proof`: looks for what is wrong with an exported file; exit 1 when anything is. */
export async function proof({ operands, values, open, signal, progress }: Call): Promise<Answer> {
  const id = required(operands[0], 'PROJECT');
  const exportId = required(operands[1], 'EXPORT');
  if (!values.covers) throw new UsageError('Say what is to be looked for: --covers.');
  const context = await open();
  const row = await context.db.exports.findOne({ where: { id: exportId, projectId: id } });
  if (!row) throw notFound('export');
  const { settings } = exportOf(row);
  const looked = await proofCovers(context, id, exportId, {
    signal,
    onProgress: (share) => progress(`${Math.round(share * 100)} % Looking under the covers`),
  });
  const folder = values.out && resolve(values.out);
  if (folder) await mkdir(folder, { recursive: true });
  const found = [];
  for (const [i, finding] of findingsOf(looked, settings.frameRate).entries()) {
    const picture = folder ? join(folder, `leak-${i + 1}.png`) : null;
    const seconds = ticksToSeconds(finding.worst * frameDuration(settings.frameRate));
    const { rect } = looked.leaks[i]!.worst;
    if (picture) await pictureOf(looked.video, seconds, rect, settings, picture);
    found.push({ ...finding, picture });
  }
  const covers = coversOf(looked.project).length;
  const lines = found.map(
    ({ start, end, frames, remedy, picture }) =>
      `${start.toFixed(2)}-${end.toFixed(2)} s  ${frames} frames  ${remedy}` +
      (picture ? `  ${picture}` : ''),
  );
  return {
    json: { export: exportId, covers, checked: looked.checked.length, leaks: found },
    text: [`${looked.checked.length} of ${covers} covers could be looked under.`, ...lines].join(
      '\n',
    ),
    exit: found.length ? 1 : 0,
  };
}
