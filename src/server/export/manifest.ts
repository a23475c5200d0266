import { extname } from 'node:path';
import type { MediaFacts } from '@/contract/footage';
import { migrate } from '@/core/project/migrations';
import type { Project } from '@/core/project/model';
import { lacksMatte, matteOf } from '@/core/key/matte-of';
import { presenterTakes, shownFootage } from '@/core/project/query';
import type { FootageFacts, MatteFacts } from '@/core/project/sources';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ServerContext } from '../context';
import { fingerprint } from '../analyses/fingerprint';
import { matteFile, mattesOf } from '../analyses/mattes';
import { footageOf, type Footage } from '../db/rows/footage';
import { factsOf } from '../footage/facts';
import { footageFile, originalFile, PART_FILES, trackFile } from '../footage/names';
import { readTrackFile } from '../footage/track';
import { problem } from '../problem';
import type { Original, RenderTask } from './render-frames';

/*
 * A render is described once, when it is asked for: the document, what its recordings are, and the
 * recordings and tracks themselves, under second names of the export's own. What is changed of the
 * project or put in the place of a recording afterwards, also between two attempts, is not in it.
 */

const FORMAT = 'vistum-manifest';

/** A recording as a render reads it. */
interface ManifestInput {
  readonly known: FootageFacts;
  readonly facts: MediaFacts;
  /** Name in the folder of inputs, which tells the content; null when it could not be had. */
  readonly file: string | null;
  /** The same of its pointer track; null when it has none. */
  readonly track: string | null;
  /** The same of a still as it lies over others; exports of before had none. */
  readonly still?: string | null;
  /** Its mattes that are needed, each with such a name; exports of before had none. */
  readonly mattes?: readonly (MatteFacts & { readonly file: string | null })[];
}

/** All that a render depends on. */
export interface Manifest {
  readonly format: typeof FORMAT;
  readonly version: 1;
  readonly project: Project;
  readonly inputs: Readonly<Record<string, ManifestInput>>;
}

/** The name in the store below which all of an export lies. */
export const exportFiles = (exportId: string): string => `exports/${exportId}`;

const inputFiles = (exportId: string): string => `${exportFiles(exportId)}/inputs`;

/** Gives a file a second name that tells its content; null for one that is not there. */
async function addInput(
  { stores: { files } }: ServerContext,
  exportId: string,
  file: string,
): Promise<string | null> {
  try {
    const name = `${await fingerprint(await files.path(file))}${extname(file)}`;
    await files.share(file, `${inputFiles(exportId)}/${name}`);
    return name;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
    throw error;
  }
}

async function inputOf(
  context: ServerContext,
  exportId: string,
  footage: Footage,
  known: FootageFacts,
  mattes: readonly MatteFacts[],
): Promise<ManifestInput> {
  return {
    mattes: await Promise.all(
      mattes.map(async (matte) => ({
        ...matte,
        file: await addInput(context, exportId, await matteFile(context, matte.id)),
      })),
    ),
    known,
    facts: footage.facts!,
    file: await addInput(context, exportId, originalFile(footage)),
    track: footage.hasPointer ? await addInput(context, exportId, trackFile(footage.id)) : null,
    still:
      footage.facts!.kind === 'image'
        ? await addInput(context, exportId, footageFile(footage.id, PART_FILES.still.file))
        : null,
  };
}

/** Footage of a project that was looked at, as the database has it. */
async function footageIn(context: ServerContext, projectId: string): Promise<Footage[]> {
  const { footage } = context.db;
  const rows = await footage.findAll({ where: { projectId, deletedAt: null } });
  return rows.map(footageOf).filter(({ facts }) => facts !== null);
}

/**
 * Writes down what an export of a project renders, and takes hold of the recordings it uses. Links
 * files, and reads a megabyte of each.
 */
export async function makeManifest(
  context: ServerContext,
  exportId: string,
  projectId: string,
  project: Project,
): Promise<Manifest> {
  const used = shownFootage(project);
  const made = { mattes: await mattesOf(context, projectId) };
  const inputs: Record<string, ManifestInput> = {};
  for (const footage of await footageIn(context, projectId)) {
    const known = factsOf(footage);
    if (!known || !used.has(footage.id)) continue;
    const key = project.keys.find((one) => one.footageId === footage.id);
    if (key && presenterTakes(project).has(footage.id) && lacksMatte(made, key))
      throw problem('matte-missing', known.name);
    const matte = key?.on ? matteOf(made, key) : null;
    inputs[footage.id] = await inputOf(context, exportId, footage, known, matte ? [matte] : []);
  }
  return { format: FORMAT, version: 1, project, inputs };
}

/** A document as it was stored, maybe by an earlier version of Vistum. */
function projectOf(value: unknown): Project {
  const found = migrate(value);
  if ('fault' in found) throw problem('save-unsound', found.fault.path, found.fault.message);
  // It was whole and sound when it was stored.
  return found.value as Project;
}

const isManifest = (value: unknown): value is Manifest =>
  typeof value === 'object' && value !== null && 'format' in value && value.format === FORMAT;

/**
 * What an export renders, from its cell in the database. Exports that were asked for before there
 * were manifests have the document alone: they take the recordings as they are now.
 */
export async function readManifest(
  context: ServerContext,
  exportId: string,
  projectId: string,
  text: string,
): Promise<Manifest> {
  const value: unknown = JSON.parse(text);
  return isManifest(value)
    ? { ...value, project: projectOf(value.project) }
    : makeManifest(context, exportId, projectId, projectOf(value));
}

/**
 * What a manifest gives the renderer: everything in it by path. Reads the tracks, which can be
 * large: not for a request.
 */
export async function taskOf(
  { stores: { files } }: ServerContext,
  exportId: string,
  { project, inputs }: Manifest,
  output: RenderTask['output'],
  rate: RenderTask['rate'],
): Promise<RenderTask> {
  const at = (name: string) => files.path(`${inputFiles(exportId)}/${name}`);
  const footage: Record<string, FootageFacts> = {};
  const mattes: Record<string, MatteFacts[]> = {};
  const pointers: Record<string, PointerTrack> = {};
  const originals: Record<string, Original> = {};
  for (const [id, { known, facts, file, track, still, mattes: made = [] }] of Object.entries(
    inputs,
  )) {
    if (!file || made.some((matte) => !matte.file)) throw problem('export-input-gone', known.name);
    footage[id] = known;
    mattes[id] = made.map(({ file: _, ...matte }) => matte);
    const paths = await Promise.all(made.map(async (m) => [m.id, await at(m.file!)] as const));
    originals[id] = {
      ...{ path: await at(file), facts, mattes: Object.fromEntries(paths) },
      ...(still && { still: await at(still) }),
    };
    if (track) pointers[id] = await readTrackFile(await at(track), known);
  }
  return { project, sources: { footage, pointers, mattes }, originals, output, rate };
}

/** Lets go of what an export took hold of. */
export const removeInputs = ({ stores }: ServerContext, exportId: string): Promise<void> =>
  stores.files.remove(inputFiles(exportId));
