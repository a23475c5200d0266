import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { changeKey, DEFAULT_KEY } from '@/core/edit/settings';
import { placeFootage } from '@/core/edit/place';
import { addSpan, setLayout } from '@/core/edit/spans';
import { arrangementsFor } from '@/core/layout/arrangements';
import { LAYOUTS } from '@/core/layout/built-in';
import type { Layout } from '@/core/layout/model';
import { createProject } from '@/core/project/create';
import { frameDuration, secondsToTicks } from '@/core/time/ticks';
import type { RenderTask } from '@/server/export/render-frames';
import { runMedia } from '@/server/media/process';
import { wallOf } from '@/server/analyses/wall';
import { timeComposing } from './composing';
import { median, table } from './measure';
import { RATE, readRecordings } from './scenes';

/** As large as what the preview draws, and as the copies that it reads. */
const OUTPUT = { width: 1280, height: 720 };
const SECONDS = 4;
const BEGINS = 1;
const GLIDE = 2;

const ringed = (layout: Layout): Layout => ({
  ...layout,
  screen: {
    box: { x: 0.03, y: 0.1, width: 0.6, height: 0.6 },
    ...{ rounding: 0.04, shadow: 0.6, ring: { width: 4, color: '#ffffff' } },
  },
  presenter: {
    box: { x: 0.66, y: 0.25, width: 0.3, height: 0.53 },
    ...{ shape: 'squircle', feather: 0, center: null, shadow: 0.6 },
    ring: { width: 8, color: '#0e6b63', second: '#e0f0ff', gap: 4 },
  },
});
const [half] = arrangementsFor(OUTPUT);

/** From the corner over to what, and how. */
const WAYS: readonly [string, Layout | null, object][] = [
  ['nothing moves', null, {}],
  ['side by side', LAYOUTS.side, {}],
  ['half and half', half!, {}],
  ['presenter only', LAYOUTS.presenter, {}],
  ['rounded, ringed, with shadows', ringed(LAYOUTS.side), {}],
  [
    'the same before two colours',
    { ...ringed(LAYOUTS.side), background: { from: '#204060', to: '#e0f0ff' } },
    {},
  ],
  ['side by side, dissolved', LAYOUTS.side, { dissolves: true }],
];

/** Views that go closer for as long as the glides take, and by how many degrees they turn. */
const CLOSER: readonly [string, number][] = [
  ['nothing moves but the view, closer', 0],
  ['the same, and it turns', 12],
];

async function small(path: string, from: number, to: string): Promise<void> {
  const what = ['-an', '-vf', `scale=${OUTPUT.width}:${OUTPUT.height}`, '-c:v', 'libx264'];
  const stretch = ['-ss', String(from), '-i', path, '-t', String(SECONDS)];
  await runMedia('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...stretch, ...what, to]);
}

/** What the pictures of a glide between two layouts take to compose, a keyed presenter in both. */
export async function benchLayouts(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-layouts-'));
  try {
    const [screen, camera] = [join(folder, 'screen.mp4'), join(folder, 'camera.mp4')];
    await small('demo/media/kilnbook-screen.mp4', 20, screen);
    await small('demo/media/presenter-take-2.mp4', 1, camera);
    const { sources, originals } = await readRecordings({
      camera: { path: camera, role: 'presenter' },
      screen: { path: screen, role: 'screen' },
    });
    const key = (await wallOf(camera, originals.camera!.facts)) ?? DEFAULT_KEY;
    const rows: string[][] = [];
    const ways = WAYS.map(([name, layout, way]) => ({ name, layout, way, turn: null }));
    const views = CLOSER.map(([name, turn]) => ({ name, layout: null, way: {}, turn }));
    for (const { name, layout, way, turn } of [...ways, ...views]) {
      let ids = 0;
      const newId = () => `bench-${ids++}`;
      const project = structuredClone(createProject(1920, 1080, RATE));
      for (const facts of Object.values(sources.footage)) placeFootage(project, facts, 0, newId);
      changeKey(project, 'camera', key);
      const range = { start: secondsToTicks(BEGINS), end: secondsToTicks(SECONDS) };
      if (layout) {
        setLayout(project, range, layout, newId);
        Object.assign(project.layouts[0]!, { glide: secondsToTicks(GLIDE), ...way });
      }
      if (turn !== null) {
        // Rebuilding text would take most of the time.
        project.canvas.crisp = false;
        addSpan(project, 'framings', {
          ...{ id: newId(), ...range, rampIn: secondsToTicks(GLIDE), rampOut: 0 },
          ...{ footageId: 'screen', rect: { x: 320, y: 180, width: 640, height: 360 } },
          ...{ endRect: null, turn, pinned: true, reason: '' },
        });
      }
      const task: RenderTask = { project, sources, originals, output: OUTPUT, rate: RATE };
      const from = (start: number, count: number) =>
        Array.from({ length: count }, (_, i) => start + i * frameDuration(RATE));
      const { compose } = await timeComposing(task, from(range.start, GLIDE * 30));
      const rest = await timeComposing(task, from(secondsToTicks(BEGINS + GLIDE), 20));
      const sorted = [...compose].sort((a, b) => a - b);
      rows.push([
        name,
        median(rest.compose).toFixed(1),
        median(compose).toFixed(1),
        sorted[Math.floor(sorted.length * 0.95)]!.toFixed(1),
        `${((100 * compose.filter((ms) => ms <= 8).length) / compose.length).toFixed(0)} %`,
      ]);
    }
    const head = [
      'from the corner to',
      'at rest there, ms',
      'usual, ms',
      '95 of 100 within, ms',
      'within 8 ms',
    ];
    console.log(`## Gliding layouts, 1280x720\n\n${table(head, rows)}\n`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
