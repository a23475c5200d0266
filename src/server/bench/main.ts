import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { execFileSync } from 'node:child_process';
import { DEFAULT_PLACEMENT } from '@/core/project/create';
import { createProject } from '@/core/project/create';
import { placeFootage } from '@/core/edit/place';
import { viewAt } from '@/core/framing/view';
import type { FootageFacts } from '@/core/project/sources';
import { rateFromNumber, secondsToTicks } from '@/core/time/ticks';
import { RATE_FACTOR } from '../export/settings';
import { videoEncoder } from '../export/encode';
import { exportFile } from '../export/export-file';
import { probeMedia } from '../media/probe';

/*
 * The same composite three ways in one run: Vistum's export, one FFmpeg filter graph, and plain decoding
 * and encoding of the screen recording. Five seconds of the demo with an animated framing,
 * the keyed round presenter, a blur and words; three rounds in turn, the median of each counts.
 */
const SECONDS = 5;
const FROM = 20;
const ROUNDS = 3;
const SIZE = { width: 1920, height: 1080 };
const RATE = rateFromNumber(30);
const SCREEN = 'demo/media/kilnbook-screen.mp4';
const CAMERA = 'demo/media/presenter-take-2.mp4';

const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-'));
const file = (name: string) => join(folder, name);
const frames = SECONDS * 30;

const ffmpeg = (...args: string[]) => {
  const started = performance.now();
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
  return frames / ((performance.now() - started) / 1000);
};

async function bench() {
  ffmpeg(
    '-ss',
    String(FROM),
    '-i',
    SCREEN,
    '-t',
    String(SECONDS),
    '-an',
    '-c:v',
    'libx264',
    '-crf',
    '19',
    '-preset',
    'medium',
    file('screen.mp4'),
  );
  ffmpeg('-i', CAMERA, '-t', String(SECONDS), '-an', '-c', 'copy', file('camera.mp4'));
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    "color=c=black:s=324x324,format=gray,geq=lum='255*lt(hypot(X-162,Y-162),162)'",
    '-frames:v',
    '1',
    file('mask.png'),
  );
  const footage: Record<string, FootageFacts> = {};
  const originals: Parameters<typeof exportFile>[0]['originals'] = {};
  for (const [id, role] of [
    ['screen', 'screen'],
    ['camera', 'presenter'],
  ] as const) {
    const { facts } = await probeMedia(file(`${id}.mp4`));
    footage[id] = { ...facts, id, name: id, role };
    Object.assign(originals, { [id]: { path: file(`${id}.mp4`), facts } });
  }
  const project = structuredClone(createProject(SIZE.width, SIZE.height, RATE));
  let n = 0;
  const newId = () => `b${n++}`;
  for (const facts of Object.values(footage)) placeFootage(project, facts, 0, newId);
  const end = secondsToTicks(SECONDS);
  project.framings.push({
    id: 'f',
    start: secondsToTicks(1),
    end: secondsToTicks(4),
    rampIn: secondsToTicks(1),
    rampOut: secondsToTicks(1),
    footageId: 'screen',
    rect: { x: 400, y: 200, width: 1920, height: 1080 },
    pinned: true,
    reason: '',
  });
  project.callouts.push(
    { id: 'c', start: 0, end, footageId: 'screen', kind: 'cover', rect: { x: 900, y: 500, width: 500, height: 300 }, strength: 16 },
    {
      id: 't',
      start: 0,
      end,
      footageId: 'screen',
      kind: 'text',
      text: 'Name it',
      anchor: { x: 1200, y: 560 },
      offset: { dx: -300, dy: -150 },
      size: 38,
      fill: '#8e3f66',
      ink: '#ffffff',
      arrow: true,
    },
  );
  project.keys.push({ footageId: 'camera', on: true, color: '#42a956', tolerance: 30, softness: 14 });
  project.presenter = { ...DEFAULT_PLACEMENT, size: 0.3, ring: { width: 0, color: '#000000' } };
  const settings = { ...SIZE, frameRate: RATE, quality: 'good' as const, range: null };
  const task = { project, sources: { footage, pointers: {} }, originals, output: SIZE, rate: RATE };

  // The filter graph zooms by the same curve; it moves in whole pixels and its text has no arrow.
  const zoom = (frame: number) => viewAt(project.framings, 'screen', footage.screen!, SIZE, secondsToTicks(frame / 30)).rect;
  const encoder = videoEncoder(RATE, RATE_FACTOR.good);
  const ramp = `if(lt(on,30),0,if(lt(on,60),(on-30)/30,if(lt(on,90),1,if(lt(on,120),1-(on-90)/30,0))))`;
  const ease = `(st(0,${ramp})*0+ld(0)*ld(0)*(3-2*ld(0)))`;
  const close = zoom(75);
  const z = 2560 / close.width;
  const graph =
    `[0:v]split[a][b];[b]crop=500:300:900:500,boxblur=16:3[bl];[a][bl]overlay=900:500,` +
    `zoompan=z='1+${(z - 1).toFixed(4)}*${ease}':x='${close.x}*${ease}':y='${close.y}*${ease}':d=1:s=1920x1080:fps=30[s];` +
    `[1:v]crop=604:604:338:0,chromakey=0x42a956:0.12:0.06,scale=324:324:flags=bicubic,format=yuva420p,split[k][e];` +
    `[e]alphaextract[ka];[ka][2:v]blend=all_mode=multiply:shortest=1[m];[k][m]alphamerge[p];` +
    `[s][p]overlay=1558:718,drawtext=text='Name it':x=500:y=260:fontsize=38:fontcolor=white:box=1:boxcolor=0x8e3f66:boxborderw=12[o]`;
  const results: Record<string, number[]> = { vistum: [], graph: [], plain: [] };
  for (let round = 0; round < ROUNDS; round++) {
    const started = performance.now();
    await exportFile(task, settings, file(`work-${round}`), file('vistum.mp4'), {
      signal: new AbortController().signal,
      onProgress: () => {},
    });
    results.vistum!.push(frames / ((performance.now() - started) / 1000));
    results.graph!.push(
      ffmpeg(
        '-i',
        file('screen.mp4'),
        '-i',
        file('camera.mp4'),
        '-loop',
        '1',
        '-r',
        '30',
        '-i',
        file('mask.png'),
        '-filter_complex',
        graph,
        '-map',
        '[o]',
        '-frames:v',
        String(frames),
        ...encoder,
        file('graph.mp4'),
      ),
    );
    results.plain!.push(ffmpeg('-i', file('screen.mp4'), ...encoder, file('plain.mp4')));
  }
  const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!;
  const fps = Object.fromEntries(Object.entries(results).map(([name, list]) => [name, median(list)])) as Record<
    'vistum' | 'graph' | 'plain',
    number
  >;
  console.log(
    `One composite of ${SECONDS} s, ${SIZE.width}x${SIZE.height} at 30 fps: moving framing, keyed round presenter, blur, words; median of ${ROUNDS}`,
  );
  console.log(`  Vistum's export          ${fps.vistum.toFixed(1)} fps`);
  console.log(`  one FFmpeg filter graph  ${fps.graph.toFixed(1)} fps`);
  console.log(`  plain decode and encode  ${fps.plain.toFixed(1)} fps (of the 2560x1440 recording, nothing composed)`);
  console.log(`  Vistum / filter graph    ${(fps.vistum / fps.graph).toFixed(2)}`);
  console.log(`  Vistum / plain           ${(fps.vistum / fps.plain).toFixed(2)}`);
}

await bench().finally(() => rmSync(folder, { recursive: true, force: true }));
