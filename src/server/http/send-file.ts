import { open, stat } from 'node:fs/promises';
import { notFound, problem } from '../problem';

const CHUNK = 1 << 18;

/** Reads on demand, so that an aborted request simply stops reading. */
function fileStream(path: string, start: number, end: number): ReadableStream<Uint8Array> {
  let handle: Awaited<ReturnType<typeof open>> | null = null;
  let at = start;
  return new ReadableStream(
    {
      async pull(controller) {
        handle ??= await open(path);
        const { bytesRead, buffer } = await handle.read(
          new Uint8Array(Math.min(CHUNK, end - at)),
          0,
          Math.min(CHUNK, end - at),
          at,
        );
        at += bytesRead;
        if (bytesRead) controller.enqueue(buffer.subarray(0, bytesRead));
        if (!bytesRead || at >= end) {
          await handle.close();
          controller.close();
        }
      },
      async cancel() {
        await handle?.close();
      },
    },
    { highWaterMark: 0 },
  );
}

/** A file with support for ranges (RFC 9110, section 14). */
export async function sendFile(
  request: Request,
  path: string,
  type: string,
  downloadAs?: string,
): Promise<Response> {
  const info = await stat(path).catch(() => null);
  if (!info) throw notFound('file');
  const headers: Record<string, string> = {
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=3600',
    'cross-origin-resource-policy': 'same-origin',
    'last-modified': info.mtime.toUTCString(),
    ...(downloadAs
      ? {
          'content-disposition': `attachment; filename="${downloadAs.replace(/[^\w .-]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(downloadAs)}`,
        }
      : {}),
  };
  const range = /^bytes=(\d*)-(\d*)$/.exec(request.headers.get('range') ?? '');
  if (!range || (!range[1] && !range[2])) {
    headers['content-length'] = String(info.size);
    return new Response(request.method === 'HEAD' ? null : fileStream(path, 0, info.size), {
      headers,
    });
  }
  const start = range[1] ? Number(range[1]) : Math.max(0, info.size - Number(range[2]));
  const end = range[1] && range[2] ? Math.min(Number(range[2]) + 1, info.size) : info.size;
  if (start >= end) throw problem('range-beyond-end');
  headers['content-range'] = `bytes ${start}-${end - 1}/${info.size}`;
  headers['content-length'] = String(end - start);
  return new Response(fileStream(path, start, end), { status: 206, headers });
}
