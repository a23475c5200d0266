import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { doEdit, EMPTY_HISTORY } from '@/core/edit/history';
import { changeCanvas } from '@/core/edit/settings';
import { closeDatabase } from '../db/connection';
import { listProjects, newProject } from '../projects';
import { checkSave } from './check';
import { openLastGood, openProject, openProjectText, saveProject } from './documents';
import { superfluous } from './revisions';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const RATE = { num: 30, den: 1 };
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** A project whose background was changed twice, as `#000001` and `#000002`. */
async function edited(name: string): Promise<string> {
  const id = await newProject(context, name, 1280, 720, RATE);
  for (const background of ['#000001', '#000002']) {
    const open = await openProject(context, id);
    const next = doEdit(open, 'Background', (draft) => changeCanvas(draft, { background }));
    await saveProject(context, id, next.project, next.history, open.revision);
  }
  return id;
}

const damage = async (id: string, change: object) =>
  context.db.projects.update(change, { where: { id } });

describe('a damaged document', () => {
  const sound = async (id: string) => String((await context.db.projects.findByPk(id))!.document);
  test.each<[string, (document: string) => string]>([
    ['cut off', (text) => text.slice(0, text.length / 2)],
    ['null', () => 'null'],
    ['empty', () => ''],
    ['with a broken canvas', (text) => text.replace('"width":1280', '"width":"wide"')],
    ['with a frame rate that is a list', (text) => text.replace(/\{"num":30,"den":1\}/, '[]')],
  ])(
    '%s keeps nobody from the others, and its last good revision is offered',
    async (what, cut) => {
      const whole = await newProject(context, `Beside ${what}`, 1280, 720, RATE);
      const id = await edited(`Damaged ${what}`);
      const broken = cut(await sound(id));
      await damage(id, { document: broken });
      expect((await listProjects(context)).map((p) => p.id)).toEqual(
        expect.arrayContaining([id, whole]),
      );
      const refused = await openProject(context, id).then(
        () => null,
        (error: { code: string; details: { lastGood: { revision: number } } }) => error,
      );
      expect(refused).toMatchObject({
        code: 'project-damaged',
        status: 409,
        details: { name: `Damaged ${what}`, lastGood: { revision: 3 } },
      });
      await expect(openLastGood(context, id, 2)).rejects.toMatchObject({ code: 'revision-gone' });
      await openLastGood(context, id, refused!.details.lastGood.revision);
      const open = await openProject(context, id);
      expect([open.project.canvas.background, open.revision]).toEqual(['#000002', 4]);
      // What was there is kept to the byte.
      const kept = readdirSync(join(folder, 'damaged')).find((name) => name.startsWith(id))!;
      expect(readFileSync(join(folder, 'damaged', kept), 'utf8')).toContain(broken);
      await expect(openLastGood(context, id, 4)).rejects.toMatchObject({ code: 'not-damaged' });
    },
  );

  test('is passed over for an older revision when the newest is damaged too', async () => {
    const id = await edited('Twice damaged');
    const { revisions } = context.db;
    await damage(id, { document: 'null' });
    await revisions.update(
      { document: Buffer.from('gone') },
      { where: { projectId: id, revision: 3 } },
    );
    await expect(openProject(context, id)).rejects.toMatchObject({
      details: { lastGood: { revision: 2 } },
    });
    await openLastGood(context, id, 2);
    expect((await openProject(context, id)).project.canvas.background).toBe('#000001');
  });

  test('without any revision says where to look', async () => {
    const id = await edited('Lost');
    const { revisions } = context.db;
    await damage(id, { document: '{' });
    await revisions.destroy({ where: { projectId: id } });
    await expect(openProject(context, id)).rejects.toMatchObject({ code: 'project-lost' });
  });
});

test('a damaged date or summary leaves the list whole', async () => {
  const id = await newProject(context, 'Undated', 1280, 720, RATE);
  const { sequelize } = context.db;
  await sequelize.query("UPDATE projects SET updatedAt = 'yesterday', width = NULL WHERE id = ?", {
    replacements: [id],
  });
  const found = (await listProjects(context)).find((p) => p.id === id);
  expect(found).toMatchObject({ picture: null, changedAt: '1970-01-01T00:00:00.000Z' });
});

type Hurt = (id: string) => Promise<unknown>;
const firstStep =
  (step: string): Hurt =>
  (id) =>
    context.db.steps.update({ step }, { where: { projectId: id, position: 0 } });

test.each<[string, Hurt]>([
  ['is no step', firstStep('{}')],
  ['is nothing', firstStep('null')],
  ['is cut off', firstStep('{"label":"Back')],
  ['closes its list', firstStep('1],"more":[2')],
  ['has no change', firstStep('{"label":"x"}')],
  ['is missing', (id) => context.db.steps.destroy({ where: { projectId: id, position: 1 } })],
])(
  'a history of which one step %s begins anew and is told; the project is whole',
  async (_what, hurt) => {
    const id = await edited('History');
    await hurt(id);
    const open = await openProject(context, id);
    expect(open.project.canvas.background).toBe('#000002');
    expect(open.history).toEqual(EMPTY_HISTORY);
    expect(open.notes).toEqual([expect.stringMatching(/undo history .* damaged/)]);
    expect(JSON.parse(await openProjectText(context, id, { more: 1 }))).toEqual({
      ...open,
      more: 1,
    });
  },
);

test('a history that does not fit the document begins anew', async () => {
  const id = await edited('Unfitting');
  const entry = { label: 'x', forward: {}, inverse: { lanes: { steps: [['drop', 99]] } } };
  await firstStep(JSON.stringify(entry))(id);
  expect((await openProject(context, id)).notes).toHaveLength(1);
});

describe('what a save may hold', () => {
  const bounds = { depth: 32, values: 10_000 };
  const save = (change: (body: Record<string, unknown>) => unknown) => {
    const project = JSON.parse(document) as Record<string, unknown>;
    const body = { revision: 1, project, history: { done: [], undone: [] } };
    return checkSave(Buffer.from(JSON.stringify(change(body) ?? body)), bounds, {});
  };
  let document = '';
  beforeAll(async () => {
    document = JSON.stringify((await openProject(context, await edited('Template'))).project);
  });

  test('a sound one is ready to be stored', () => {
    expect(save(() => undefined)).toMatchObject({ revision: 1, document });
  });

  test.each<[string, (body: Record<string, unknown>) => unknown]>([
    ['a history without lists', (body) => ({ ...body, history: {} })],
    ['a history that is a list', (body) => ({ ...body, history: [] })],
    [
      'an entry that names what no document has',
      (body) => ({
        ...body,
        history: {
          done: [{ label: 'x', forward: { prototype: { value: 1 } }, inverse: {} }],
          undone: [],
        },
      }),
    ],
    [
      'steps that count below nothing',
      (body) => ({
        ...body,
        history: {
          done: [{ label: 'x', forward: { lanes: { steps: [-4] } }, inverse: {} }],
          undone: [],
        },
      }),
    ],
    [
      'a frame rate that is a list',
      ({ project, ...body }) => {
        const { canvas } = project as { canvas: object };
        return {
          ...body,
          project: { ...(project as object), canvas: { ...canvas, frameRate: [] } },
        };
      },
    ],
    ['another property', (body) => ({ ...body, admin: true })],
    ['a revision of 0', (body) => ({ ...body, revision: 0 })],
  ])('%s is refused', (_name, change) => {
    expect(save(change)).toMatchObject({ refused: { status: expect.any(Number) as number } });
  });

  test.each(['constructor', '__proto__', 'toString', 'hasOwnProperty'])(
    'a clip of the footage “%s”, which no project has, is refused',
    (footageId) => {
      const found = save((body) => {
        const project = body.project as { lanes: { clips: object[] }[] };
        project.lanes[0]!.clips.push({
          ...{ id: 'clip', footageId, start: 0, duration: 705_600_000, source: 0, link: null },
          ...{ speed: 1, gain: 0, muted: false, fadeIn: 0, fadeOut: 0, envelope: [] },
          ...{ transitionIn: null, transitionOut: null, group: null },
        });
      });
      expect(found).toMatchObject({
        refused: {
          message: expect.stringMatching(/footage that the project does not have/) as string,
        },
      });
    },
  );

  test('an own property named __proto__ changes nothing', () => {
    const text = `{"revision":1,"project":${document},"history":{"done":[{"label":"x","forward":{"__proto__":{"value":1}},"inverse":{}}],"undone":[]}}`;
    expect(checkSave(Buffer.from(text), bounds, {})).toHaveProperty('refused');
    expect(({} as { value?: unknown }).value).toBeUndefined();
  });

  test('more values or deeper nesting than is taken are refused before they are read', () => {
    const many = Buffer.from(`{"revision":1,"project":{${'"k":0,'.repeat(20_000)}"k":0}}`);
    expect(checkSave(many, bounds, {})).toMatchObject({ refused: { code: 'body-too-many' } });
    const deep = Buffer.from(`{"project":${'['.repeat(10_000)}${']'.repeat(10_000)}}`);
    expect(checkSave(deep, bounds, {})).toMatchObject({ refused: { code: 'body-too-deep' } });
  });
});

test('revisions thin out with age: the newest stay, and old gaps stay small', () => {
  const DAY = 86_400_000;
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 20 * DAY }), { minLength: 1, maxLength: 200 }),
      (ages) => {
        const now = 100 * DAY;
        const kept = [...ages]
          .sort((a, b) => b - a)
          .map((age, i) => ({ revision: i + 1, savedAt: now - age }));
        const gone = new Set(superfluous(kept, now));
        const left = kept.filter(({ revision }) => !gone.has(revision));
        expect(left.slice(-3)).toEqual(kept.slice(-3));
        // Thinning what was thinned takes nothing more.
        expect(superfluous(left, now)).toEqual([]);
        // Of any hour of the last day, and any day of the last fortnight, something near is left.
        for (const { savedAt, revision } of kept) {
          const age = now - savedAt;
          if (!gone.has(revision) || age > 14 * DAY) continue;
          const apart = age <= 3_600_000 ? 300_000 : age <= DAY ? 3_600_000 : DAY;
          expect(left.some((one) => Math.abs(one.savedAt - savedAt) < apart)).toBe(true);
        }
      },
    ),
  );
});
