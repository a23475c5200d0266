import { copyFile, readFile, rename } from 'node:fs/promises';
import { basename, resolve } from 'node:path';
import { projectDuration } from '@/core/project/query';
import { framesPerSecond, ticksToSeconds } from '@/core/time/ticks';
import type { ServerContext } from '@/server/context';
import { seedDemo } from '@/server/demo/seed';
import {
  exportedFile,
  exportedLinks,
  findExportResult,
  renderTask,
  requestExport,
} from '@/server/export/job';
import { renderStill } from '@/server/export/still';
import { openProject, replaceProject } from '@/server/documents/documents';
import { addFootage } from '@/server/footage/add';
import { factsOf } from '@/server/footage/facts';
import { attachTrack } from '@/server/footage/attach-track';
import { listFootage } from '@/server/footage/view';
import { completeJob } from '@/server/jobs/complete';
import { problem, systemProblem } from '@/server/problem';
import { newProject } from '@/server/projects';
import {
  parseBitRate,
  parseFormat,
  formatOf,
  parseQuality,
  parseRange,
  parseRate,
  parseRole,
  parseSeconds,
  parseSize,
  required,
} from './arguments';
import { analyse } from './analyse';
import type { Answer, Call, Verb } from './call';
import { edit, editProject } from './edit';
import { follow } from './follow';
import { match } from './match';
import { makeMatte } from './matte';
import { plan } from './plan';
import { findPrivate } from './private';
import { proof } from './proof';
import { writeOut } from './write-out';

async function readText(path: string): Promise<string> {
  return readFile(path, 'utf8').catch(() => {
    throw problem('no-such-file', path);
  });
}

async function makeNew({ values, open }: Call): Promise<Answer> {
  const { width, height } = parseSize(values.size ?? '1920x1080');
  const project = await newProject(
    await open(),
    required(values.name, '--name'),
    width,
    height,
    parseRate(values.fps ?? '30'),
  );
  return { json: { project }, text: project };
}

async function importFile({ operands, values, open, signal, progress }: Call): Promise<Answer> {
  const project = required(operands[0], 'PROJECT');
  const file = required(operands[1], 'FILE');
  const role = values.role ? parseRole(values.role) : null;
  const track = values.pointer ? await readText(values.pointer) : null;
  const context = await open();
  const { footageId, jobId } = await addFootage(context, {
    projectId: project,
    path: resolve(file),
    name: basename(file),
    role,
    take: false,
  });
  await completeJob(context, jobId, signal, (share, message) =>
    progress(`${Math.round(share * 100)} % ${message}`),
  );
  const notes = track === null ? [] : [...(await attachTrack(context, footageId, track)).notes];
  const view = (await listFootage(context, project)).find((f) => f.id === footageId)!;
  const facts = factsOf(view)!;
  const clip = values.place ? await place(context, project, footageId) : undefined;
  for (const note of [...view.notes, ...notes]) progress(note);
  const json = {
    footage: footageId,
    kind: facts.kind,
    role: facts.role,
    width: facts.width,
    height: facts.height,
    frameRate: facts.frameRate ? framesPerSecond(facts.frameRate) : null,
    duration: ticksToSeconds(facts.duration),
    notes: [...view.notes, ...notes],
    ...(clip ? { clip } : {}),
  };
  return {
    json,
    text: `${footageId} ${facts.kind} ${facts.width}x${facts.height} ${ticksToSeconds(facts.duration).toFixed(2)} s`,
  };
}

async function place(
  context: ServerContext,
  projectId: string,
  footageId: string,
): Promise<string> {
  const parts = [{ footageId, part: null }];
  const args = { parts, at: null, mode: 'free', laneId: null } as const;
  const { result } = await editProject(context, projectId, 'place-footage', args);
  return result[0]!;
}

async function show({ operands, open }: Call): Promise<Answer> {
  const { project } = await openProject(await open(), required(operands[0], 'PROJECT'));
  return { json: project, text: JSON.stringify(project, null, 2) };
}

async function apply({ operands, open }: Call): Promise<Answer> {
  const id = required(operands[0], 'PROJECT');
  const text = await readText(required(operands[1], 'FILE.json'));
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    throw problem('file-not-json');
  }
  const revision = await replaceProject(await open(), id, document);
  return { json: { project: id, revision }, text: `Revision ${revision}` };
}

async function still({ operands, values, open }: Call): Promise<Answer> {
  const id = required(operands[0], 'PROJECT');
  const out = required(values.out, '--out');
  const at = parseSeconds(required(values.at, '--at'), '--at');
  const context = await open();
  const { project } = await openProject(context, id);
  const length = ticksToSeconds(projectDuration(project));
  if (at >= length) throw problem('beyond-end', length.toFixed(2), at);
  const size = values.size ? parseSize(values.size) : project.canvas;
  if (size.width % 2 || size.height % 2) throw problem('size-odd');
  await writeOut(
    out,
    await renderStill(await renderTask(context, id, project, size, project.canvas.frameRate), at),
  );
  return {
    json: { out: resolve(out), width: size.width, height: size.height },
    text: resolve(out),
  };
}

async function exportProject({ operands, values, open, signal, progress }: Call): Promise<Answer> {
  const id = required(operands[0], 'PROJECT');
  const out = resolve(required(values.out, '--out'));
  const context = await open();
  const { project } = await openProject(context, id);
  const { width, height } = values.size ? parseSize(values.size) : project.canvas;
  const settings = {
    format: values.format ? parseFormat(values.format) : formatOf(out),
    bitRate: values['bit-rate'] ? parseBitRate(values['bit-rate']) : null,
    calm: values.calm ?? false,
    width,
    height,
    frameRate: values.fps ? parseRate(values.fps) : project.canvas.frameRate,
    quality: parseQuality(values.quality ?? 'good'),
    range: values.range ? parseRange(values.range) : null,
  };
  const { exportId, jobId } = await requestExport(context, id, settings);
  await completeJob(context, jobId, signal, (share, message) =>
    progress(`${Math.round(share * 100)} % ${message}`),
  );
  const result = await findExportResult(context, exportId);
  const { files } = context.stores;
  const put = async (file: string, to: string) => {
    try {
      await copyFile(await files.path(file), `${to}.part`);
      await rename(`${to}.part`, to);
    } catch (error) {
      throw systemProblem(error) ?? problem('not-written', to);
    }
  };
  await put(exportedFile({ id: exportId, settings }), out);
  const links = result.links ? `${out}.links.json` : null;
  if (links) await put(exportedLinks(exportId), links);
  const { frames, duration, wallSeconds } = result;
  const what = result.width
    ? `${result.width}x${result.height}, ${frames} frames`
    : `${duration.toFixed(2)} s of sound`;
  return {
    json: {
      out,
      export: exportId,
      width: result.width,
      height: result.height,
      frames,
      duration,
      wallSeconds,
      ...(links && { links }),
    },
    text: `${out}  ${what}, made in ${wallSeconds.toFixed(1)} s`,
  };
}

async function demo({ open, progress }: Call): Promise<Answer> {
  const project = await seedDemo(await open(), progress);
  return { json: { project }, text: project };
}

export const VERBS: Readonly<Record<string, { readonly run: Verb; readonly usage: string }>> = {
  new: { run: makeNew, usage: 'new --name N [--size WxH] [--fps R]' },
  import: { run: importFile, usage: 'import PROJECT FILE [--role R] [--pointer TRACK] [--place]' },
  edit: { run: edit, usage: 'edit PROJECT EDIT [--args JSON] | edit --list' },
  show: { run: show, usage: 'show PROJECT' },
  apply: { run: apply, usage: 'apply PROJECT FILE.json' },
  analyse: {
    run: analyse,
    usage: 'analyse PROJECT FOOTAGE [--kind pointer|activity|content] [--out FILE]',
  },
  follow: { run: follow, usage: 'follow PROJECT CALLOUT [--at SECONDS] [--whole]' },
  private: {
    run: findPrivate,
    usage: 'private PROJECT FOOTAGE [--words WORD,WORD] [--out FILE]',
  },
  match: { run: match, usage: 'match PROJECT FOOTAGE_A FOOTAGE_B' },
  matte: { run: makeMatte, usage: 'matte PROJECT FOOTAGE [--shot A-B] [--out FILE]' },
  plan: {
    run: plan,
    usage:
      'plan PROJECT [--lively 0-1] [--hold SECONDS] [--limit MAGNIFICATION] [--range A-B] [--explain]',
  },
  still: { run: still, usage: 'still PROJECT --at SECONDS --out X.png [--size WxH]' },
  export: {
    run: exportProject,
    usage:
      'export PROJECT --out FILE [--format mp4|mov|webm|av1|gif|m4a|mp3|wav|png] [--size WxH] [--fps R] [--range A-B] [--quality small|good|high] [--bit-rate MBIT] [--calm]',
  },
  proof: { run: proof, usage: 'proof PROJECT EXPORT --covers [--out FOLDER]' },
  demo: { run: demo, usage: 'demo' },
};
