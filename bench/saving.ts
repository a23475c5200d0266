import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { MediaFacts } from '@/contract/footage';
import { doEdit, type Versioned } from '@/core/edit/history';
import { historyDelta } from '@/core/edit/history-delta';
import type { Project } from '@/core/project/model';
import { localContext, type ServerContext } from '@/server/context';
import { closeDatabase } from '@/server/db/connection';
import { openProject, saveProject } from '@/server/documents/documents';
import { keepLive } from '@/server/documents/live';
import { saveChange } from '@/server/documents/save-change';
import { newProject } from '@/server/projects';

const ROUNDS = 15;
const CLIPS = [30, 300, 3000];

const median = (all: readonly number[]): number =>
  [...all].sort((a, b) => a - b)[all.length >> 1] ?? 0;

/** A project of so many clips, as it is stored. */
async function stored(
  context: ServerContext,
  clips: number,
  make: (clips: number) => Project,
): Promise<string> {
  const id = await newProject(context, `${clips} clips`, 1920, 1080, { num: 30, den: 1 });
  const { footage } = context.db;
  const facts: MediaFacts = {
    ...{ kind: 'video', width: 2560, height: 1440, frameRate: { num: 30, den: 1 } },
    ...{ duration: Number.MAX_SAFE_INTEGER, hasVideo: true, hasAudio: true },
    ...{ variableRate: false, videoCodec: 'h264', audioCodec: 'aac', channels: 1 },
    ...{ sampleRate: 48_000, convertColor: null },
  };
  await footage.create({
    ...{ id: `long-${clips}`, projectId: id, name: 'long.mp4', role: 'screen', status: 'ready' },
    ...{ error: null, notes: '[]', file: 'x', bytes: 1, facts: JSON.stringify(facts) },
    ...{ hasPointer: false, deletedAt: null, inPoint: null, outPoint: null, origin: null },
  });
  const { revision, history } = await openProject(context, id);
  const text = JSON.stringify(make(clips)).replaceAll('"long"', `"long-${clips}"`);
  await saveProject(context, id, JSON.parse(text), history, revision);
  return id;
}

/** What saving one edit costs, by the number of clips: bytes sent and milliseconds of the server. */
export async function benchSaving(make: (clips: number) => Project): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-saving-'));
  process.env.VISTUM_DATA = folder;
  console.log('\nSaving one edit, by the number of clips (median of fifteen)');
  console.log('   clips   bytes sent   bytes of the whole   server ms   after a restart ms');
  const context = await localContext();
  try {
    for (const clips of CLIPS) {
      const id = await stored(context, clips, make);
      let state: Versioned & { revision: number } = await openProject(context, id);
      keepLive(id, state.revision, state);
      const [warm, cold, sent]: number[][] = [[], [], []];
      for (let round = 0; round < ROUNDS * 2; round++) {
        const next = doEdit(state, 'Split', (draft) => {
          const lane = draft.lanes.find((l) => l.kind === 'screen')!;
          const clip = lane.clips[(round * 7) % lane.clips.length]!;
          clip.gain = -((round % 20) + 1);
        });
        const delta = JSON.parse(JSON.stringify(historyDelta(state, next))) as unknown;
        const forgotten = round % 2 === 1;
        if (forgotten) keepLive(id, -1, state);
        const began = performance.now();
        const revision = await saveChange(context, id, {
          base: state.revision,
          key: `save-${round}-key`,
          delta,
        });
        (forgotten ? cold! : warm!).push(performance.now() - began);
        sent!.push(JSON.stringify({ base: state.revision, key: 'x'.repeat(21), delta }).length);
        state = { ...next, revision };
      }
      const whole = JSON.stringify({ project: state.project, history: state.history }).length;
      console.log(
        `  ${String(clips).padStart(6)}${String(median(sent!)).padStart(13)}${String(whole).padStart(21)}` +
          `${median(warm!).toFixed(1).padStart(12)}${median(cold!).toFixed(1).padStart(21)}`,
      );
    }
  } finally {
    await closeDatabase();
    rmSync(folder, { recursive: true, force: true });
  }
}
