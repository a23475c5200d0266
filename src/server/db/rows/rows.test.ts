import type { MediaFacts } from '@/contract/footage';
import type { AnalysisRow, ExportRow, FootageRow, TakeRow } from '../models';
import { analysisOf } from './analyses';
import { exportOf } from './exports';
import { footageCells, footageOf } from './footage';
import { takeOf } from './takes';

/* Rows are made up here as the database gives them; what is in their cells is what is tested. */

const facts: MediaFacts = {
  ...{ kind: 'video', width: 1920, height: 1080, frameRate: { num: 30, den: 1 } },
  ...{ variableRate: false, duration: 705_600_000, hasVideo: true, hasAudio: false },
  ...{ videoCodec: 'h264', audioCodec: null, channels: 0, sampleRate: 0, convertColor: null },
};

const footage = (change: Partial<Record<keyof FootageRow, unknown>>) =>
  footageOf({
    ...{ id: 'f', projectId: 'p', name: 'a.mp4', role: 'screen', status: 'ready', error: null },
    ...{ notes: '[]', file: 'x.mp4', bytes: 5, facts: null, hasPointer: false, tags: '[]' },
    ...{ inPoint: null, outPoint: null, deletedAt: null, createdAt: new Date(0) },
    ...change,
  } as unknown as FootageRow);

test('what is written of footage is read again', () => {
  const given = { notes: ['Odd.'], facts, tags: ['week 23'] };
  expect(footage(footageCells(given))).toMatchObject(given);
  expect(footageCells({})).toEqual({});
});

test('large whole numbers come as text, and nothing as null', () => {
  expect(footage({ inPoint: '7056000000000', outPoint: 9 })).toMatchObject({
    inPoint: 7_056_000_000_000,
    outPoint: 9,
  });
  expect(footage({ inPoint: 'soon' }).inPoint).toBeNull();
});

test.each<[string, Partial<Record<keyof FootageRow, unknown>>, object]>([
  ['cut notes', { notes: '["a' }, { notes: [] }],
  ['notes of another kind', { notes: '[1, 2]' }, { notes: [] }],
  ['facts of another kind', { facts: '{"kind":"video"}' }, { facts: null }],
  ['facts that are a number', { facts: '7' }, { facts: null }],
  ['a role that is none', { role: 'constructor' }, { role: 'auto' }],
  ['a bad date', { createdAt: 'yesterday' }, { addedAt: '1970-01-01T00:00:00.000Z' }],
])('a damaged cell keeps nobody from the rest: %s', (_, cells, read) => {
  expect(footage(cells)).toMatchObject({ name: 'a.mp4', ...read });
});

test('facts from before pictures were counted, and with more than is known here, are read', () => {
  const later = { ...facts, hdr: true };
  expect(footage({ facts: JSON.stringify(later) }).facts).toMatchObject(facts);
});

test('exports of before have what came later as it is by default', () => {
  const row = (settings: unknown) =>
    exportOf({
      ...{ id: 'e', projectId: 'p', name: 'E', result: null, createdAt: new Date(0) },
      settings: JSON.stringify(settings),
    } as unknown as ExportRow);
  const old = { width: 1280, height: 720, frameRate: { num: 25, den: 1 }, quality: 'good' };
  expect(row(old).settings).toEqual({
    ...old,
    ...{ format: 'mp4', bitRate: null, range: null, calm: false },
  });
  expect(row({ ...old, format: 'reel' }).settings).toMatchObject({ width: 16, format: 'mp4' });
  expect(row(null).settings).toMatchObject({ width: 16 });
});

test('a take that can’t be read has no tracks; one of another kind of end has none', () => {
  const take = takeOf({
    ...{ id: 't', projectId: 'p', stepId: null, kind: 'all', number: 1, status: 'stopped' },
    ...{ reason: 'boredom', seconds: 3, setup: '{"tracks":7}', footage: '[]', seenAt: 0 },
    createdAt: new Date(0),
  } as unknown as TakeRow);
  expect(take).toMatchObject({ reason: null, setup: { tracks: [] }, footage: {} });
});

test('an analysis of a kind that is not known is none', () => {
  const row = (kind: string) =>
    analysisOf({ id: 'a', footageId: 'f', kind, summary: '{"a":1}' } as unknown as AnalysisRow);
  expect(row('wall')).toMatchObject({ kind: 'wall', summary: { a: 1 } });
  expect(row('toString')).toBeNull();
});
