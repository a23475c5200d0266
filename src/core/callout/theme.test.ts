import { applyEdit } from '../edit/apply';
import { counter, demoProject, SOURCES } from '../edit/fixture';
import { prepareEdit } from '../edit/registry';
import { inProjectTheme } from '../edit/theme';
import type { Callout, Project } from '../project/model';
import { contrastRatio } from './contrast';
import { UNPOSED } from './keyframes';
import { kindOf, KINDS, type CalloutKindName } from './kinds';
import { newTheme, type Theme } from './theme';

const SPOT = {
  at: { x: 900, y: 500 },
  size: SOURCES.footage.screen!,
  frame: { width: 1920, height: 1080 },
};
const NAMES = (Object.keys(KINDS) as CalloutKindName[]).filter((kind) => kindOf({ kind }).create);
const made = (kind: CalloutKindName, project: Project): Callout =>
  inProjectTheme(project, SOURCES, {
    ...kindOf({ kind }).create!(SPOT),
    ...{ id: `id-${kind}`, start: 0, end: 90, anchor: { to: 'footage', footageId: 'screen' } },
    ...UNPOSED,
  } as unknown as Callout);

/** One of each kind in a project's theme. */
function themed(): Project {
  const project = demoProject(counter());
  project.callouts = NAMES.map((kind) => made(kind, project));
  return project;
}
const change = (project: Project, by: Partial<Theme>): Project =>
  applyEdit(project, prepareEdit('change-theme', { change: by }, project, SOURCES, counter()).edit)
    .project;
const get = (project: Project, kind: CalloutKindName) =>
  project.callouts.find((one) => one.kind === kind) as unknown as Record<string, unknown>;

test('a new callout looks as a kind does by itself until the theme says something else', () => {
  const project = themed();
  for (const kind of NAMES)
    expect(get(project, kind)).toMatchObject({
      ...kindOf({ kind }).create!(SPOT),
      // The theme's width is a whole number of the frame's pixels.
      ...('width' in get(project, kind) && { width: 8 }),
    });
  const { fill, ink } = newTheme(1080);
  expect(contrastRatio(fill, ink)).toBeGreaterThan(4.5);
});

test('callouts go along with the theme, in pixels of what they stand on', () => {
  const after = change(themed(), { line: '#123456', width: 12, weight: 'bold', corner: 0.4 });
  // The recording has four pixels for three of the frame's.
  for (const kind of ['arrow', 'line', 'box', 'ellipse'] as const)
    expect(get(after, kind)).toMatchObject({ color: '#123456', width: 16 });
  expect(get(after, 'text')).toMatchObject({ weight: 'bold', corner: 0.4, fill: '#8e3f66' });
  expect(get(after, 'note')).toMatchObject({ weight: 'bold', corner: 0.5 });
  expect(get(after, 'highlight').color).toBe('#f2c230');
  expect(get(after, 'cover')).toEqual(get(themed(), 'cover'));
});

test('what was set by hand stays, and goes back into the theme with the theme’s own value', () => {
  const project = themed();
  Object.assign(get(project, 'box'), { color: '#00ff00' });
  const after = change(project, { line: '#123456' });
  expect(get(after, 'box').color).toBe('#00ff00');
  expect(get(after, 'line').color).toBe('#123456');
  expect(change(change(after, { line: '#00ff00' }), { line: '#111111' })).toMatchObject({
    theme: { line: '#111111' },
  });
});
