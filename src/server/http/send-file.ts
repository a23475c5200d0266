import type { FileStore } from '../stores/file-store';
import { notFound, problem } from '../problem';

/** A stored file, with support for ranges (RFC 9110, section 14). */
export async function sendFile(
  request: Request,
  store: FileStore,
  file: string,
  type: string,
  downloadAs?: string,
): Promise<Response> {
  const info = await store.find(file);
  if (!info) throw notFound('file');
  const headers: Record<string, string> = {
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, max-age=3600',
    'cross-origin-resource-policy': 'same-origin',
    'last-modified': info.modified.toUTCString(),
    ...(downloadAs
      ? {
          'content-disposition': `attachment; filename="${downloadAs.replace(/[^\w .-]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(downloadAs)}`,
        }
      : {}),
  };
  const range = /^bytes=(\d*)-(\d*)$/.exec(request.headers.get('range') ?? '');
  if (!range || (!range[1] && !range[2])) {
    headers['content-length'] = String(info.bytes);
    return new Response(request.method === 'HEAD' ? null : store.stream(file, 0, info.bytes), {
      headers,
    });
  }
  const start = range[1] ? Number(range[1]) : Math.max(0, info.bytes - Number(range[2]));
  const end = range[1] && range[2] ? Math.min(Number(range[2]) + 1, info.bytes) : info.bytes;
  if (start >= end) throw problem('range-beyond-end');
  headers['content-range'] = `bytes ${start}-${end - 1}/${info.bytes}`;
  headers['content-length'] = String(end - start);
  return new Response(store.stream(file, start, end), { status: 206, headers });
}
