import type { TSchema } from '@sinclair/typebox';
import { VideoLinks } from '../frame/links';
import { Project, PROJECT_FORMAT, PROJECT_VERSION } from '../project/model';
import { TakeEvent } from '../take/take';
import { PointerTrack } from '../telemetry/pointer-track';

/** What each file format of ours is described by in `docs/schemas`, by the name of its file. */
const FORMATS: Readonly<Record<string, { id: string; title: string; schema: TSchema }>> = {
  project: {
    id: PROJECT_FORMAT,
    title: `Vistum project document, version ${PROJECT_VERSION}`,
    schema: Project,
  },
  pointer: {
    id: 'vistum-pointer',
    title: 'Vistum pointer track, version 2',
    schema: PointerTrack,
  },
  links: {
    id: 'vistum-links',
    title: 'Where a video can be pressed, version 1',
    schema: VideoLinks,
  },
  take: {
    id: 'vistum-take',
    title: 'A line of the data of a take, as Vistum writes it while recording',
    schema: TakeEvent,
  },
};

/** The JSON Schemas (draft 7) of the file formats, as they are published, by file name. */
export const publishedSchemas = (): Readonly<Record<string, unknown>> =>
  Object.fromEntries(
    Object.entries(FORMATS).map(([name, { id, title, schema }]) => [
      `${name}.schema.json`,
      {
        $schema: 'http://json-schema.org/draft-07/schema#',
        $id: id,
        title,
        // Through text, which leaves out what only types need.
        ...(JSON.parse(JSON.stringify(schema)) as object),
      },
    ]),
  );
