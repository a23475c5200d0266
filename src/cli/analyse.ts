import { resolve } from 'node:path';
import { correctTrack } from '@/core/telemetry/correct';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { readResult, requestAnalysis } from '@/server/analyses/analyses';
import type { ServerContext } from '@/server/context';
import { openProject } from '@/server/documents/documents';
import { listFootage } from '@/server/footage/view';
import { completeJob } from '@/server/jobs/complete';
import { notFound, problem } from '@/server/problem';
import { required, UsageError } from './arguments';
import type { Answer, Call } from './call';
import { writeOut } from './write-out';

/** What can be asked of a screen recording. */
const KINDS = ['pointer', 'activity', 'content'] as const;
type Kind = (typeof KINDS)[number];

function parseKind(text: string | undefined): Kind | null {
  if (text === undefined) return null;
  const kind = KINDS.find((name) => name === text);
  if (!kind) throw new UsageError(`--kind is ${KINDS.join(', ')}; "${text}" is none of them.`);
  return kind;
}

/** What a screen recording shows; it is looked through if nobody did so yet. */
export async function lookThrough(
  context: ServerContext,
  footageId: string,
  { signal, progress }: Pick<Call, 'signal' | 'progress'>,
): Promise<ScreenSight> {
  const { id, jobId } = await requestAnalysis(context, footageId, 'screen');
  if (jobId)
    await completeJob(context, jobId, signal, (share, message) =>
      progress(`${Math.round(share * 100)} % ${message}`),
    );
  return JSON.parse(String(await readResult(context, id))) as ScreenSight;
}

/** The part of what was found that was asked for. */
function partOf(sight: ScreenSight, kind: Kind | null): unknown {
  switch (kind) {
    case 'pointer':
      return sight.pointer;
    case 'activity':
      return sight.activities;
    case 'content':
      return sight.pages;
    case null:
      return sight;
  }
}

/** `vistum analyse`: finds out what a screen recording shows. */
export async function analyse(call: Call): Promise<Answer> {
  const { operands, values, open } = call;
  const project = required(operands[0], 'PROJECT');
  const footage = required(operands[1], 'FOOTAGE');
  const kind = parseKind(values.kind);
  const context = await open();
  const known = (await listFootage(context, project)).some(({ id }) => id === footage);
  if (!known) throw notFound('footage');
  const found = await lookThrough(context, footage, call);
  // What a person mended in the project goes along, told by the track's source.
  const { corrections } = (await openProject(context, project)).project;
  const made = corrections.find(({ footageId }) => footageId === footage)?.made ?? [];
  const sight = { ...found, pointer: found.pointer && correctTrack(found.pointer, made) };
  const { pointer, activities, pages } = sight;
  if (kind === 'pointer' && !pointer && values.out) throw problem('no-pointer-found');
  const out = values.out && resolve(values.out);
  if (out) await writeOut(out, Buffer.from(JSON.stringify(partOf(sight, kind))));
  const presses = pointer?.events.filter(({ type }) => type === 'down').length ?? 0;
  const lines = [
    pointer
      ? `Pointer: ${pointer.samples.length} positions, ${presses} presses inferred`
      : 'Pointer: none found in the picture',
    `Activity: ${activities.length} things that happened`,
    `Content: ${pages.length} pages`,
    ...(out ? [out] : []),
  ];
  return {
    json: {
      pointer: pointer && { positions: pointer.samples.length, presses },
      activities: activities.length,
      pages: pages.length,
      ...(out ? { out } : {}),
    },
    text: lines.join('\n'),
  };
}
