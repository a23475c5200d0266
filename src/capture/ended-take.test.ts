import type { TakeStatus } from '@/contract/takes';
import { finishedTake, putTakeAway } from './ended-take';

let told: (TakeStatus | 'away' | 'gone')[] = [];
let asked: string[] = [];

beforeEach(() => {
  jest.useFakeTimers({ advanceTimers: 20 });
  asked = [];
  global.fetch = jest.fn((address: string, { method = 'GET' }: RequestInit) => {
    asked.push(`${method} ${address}`);
    const status = told.length > 1 ? told.shift()! : told[0]!;
    if (status === 'away') return Promise.reject(new TypeError('no network'));
    if (status === 'gone')
      return Promise.resolve({
        ok: false,
        status: 404,
        json: () => Promise.resolve(null),
      } as Response);
    const answer = { ok: true, status: 200, json: () => Promise.resolve({ id: 't', status }) };
    return Promise.resolve(answer as Response);
  }) as typeof fetch;
});
afterEach(() => jest.useRealTimers());

test('a take is waited for until it is finished, also while the server begins anew', async () => {
  told = ['closing', 'away', 'away', 'closing', 'stopped'];
  expect(await finishedTake('t')).toMatchObject({ status: 'stopped' });
  expect(asked).toEqual(Array.from({ length: 5 }, () => 'GET /api/takes/t'));
});

test('one that could not be finished can be rescued, which is said', async () => {
  told = ['closing', 'recording'];
  await expect(finishedTake('t')).rejects.toThrow(/Nothing of it is lost/);
});

test('a server that stays away is said at last', async () => {
  told = ['away'];
  const waiting = expect(finishedTake('t')).rejects.toThrow(/does not answer/);
  await jest.advanceTimersByTimeAsync(31_000);
  await waiting;
});

test('a take that is gone, as with its project, is not waited for', async () => {
  told = ['closing', 'gone'];
  await expect(finishedTake('t')).rejects.toMatchObject({ status: 404 });
  expect(asked).toHaveLength(2);
});

test('a take is put away only when it is finished', async () => {
  told = ['closing', 'stopped', 'discarded'];
  await putTakeAway('t');
  expect(asked).toEqual(['GET /api/takes/t', 'GET /api/takes/t', 'PATCH /api/takes/t']);
});
