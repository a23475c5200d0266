import { call, CallError, requestFor } from './call';
import { attachPointer } from './footage';
import { changeProject, createProject } from './projects';

const answering = (response: Response | Error) => {
  const fetched = jest.fn(() =>
    response instanceof Error ? Promise.reject(response) : Promise.resolve(response),
  );
  globalThis.fetch = fetched as unknown as typeof fetch;
  return fetched;
};
const real = globalThis.fetch;
afterEach(() => (globalThis.fetch = real));

const asked = {
  body: { name: 'One', width: 1280, height: 720, frameRate: { num: 30, den: 1 } },
};

test('a body travels as JSON, and the answer comes back as it is', async () => {
  const fetched = answering(Response.json({ id: 'p' }));
  expect(await call(createProject, asked)).toEqual({ id: 'p' });
  expect(fetched).toHaveBeenCalledWith('/api/projects', {
    method: 'POST',
    body: JSON.stringify(asked.body),
    headers: { 'content-type': 'application/json' },
  });
});

test('a file travels as it is', () => {
  const body = new Blob(['{}']);
  const [where, init] = requestFor(attachPointer, { params: { id: 'f' }, body });
  expect(where).toBe('/api/footage/f/pointer');
  expect(init).toMatchObject({ method: 'POST', body });
});

test('no content is null; a refusal is a sentence with what belongs to it', async () => {
  answering(new Response(null, { status: 204 }));
  expect(await call(changeProject, { params: { id: 'p' }, body: { deleted: true } })).toBeNull();
  answering(Response.json({ detail: 'There is no such project.', code: 'x' }, { status: 404 }));
  const refused = await call(createProject, asked).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(CallError);
  expect(refused).toMatchObject({
    message: 'There is no such project.',
    status: 404,
    details: { code: 'x' },
  });
});

test('an answer that is none, and no answer at all, are told apart', async () => {
  answering(new Response('<html>', { status: 502 }));
  await expect(call(createProject, asked)).rejects.toMatchObject({
    message: 'The server answered 502.',
    status: 502,
  });
  answering(new TypeError('Failed to fetch'));
  await expect(call(createProject, asked)).rejects.toMatchObject({ status: 0 });
});
