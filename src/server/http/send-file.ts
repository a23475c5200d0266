import type { FileStore, StoredFile } from '../stores/file-store';
import { notFound, problem } from '../problem';

/** Names the content of a file: another one that takes its place has another tag. */
const tagOf = ({ bytes, modified }: StoredFile): string =>
  `"${bytes.toString(36)}-${modified.getTime().toString(36)}"`;

/**
 * A stored file, with support for ranges (RFC 9110, section 14). A browser may keep what it has but
 * asks each time whether it still holds (section 13): a recording can be put in the place of
 * another, and parts of both together are neither.
 */
export async function sendFile(
  request: Request,
  store: FileStore,
  file: string,
  type: string,
  downloadAs?: string,
): Promise<Response> {
  const info = await store.find(file);
  if (!info) throw notFound('file');
  const tag = tagOf(info);
  const headers: Record<string, string> = {
    'content-type': type,
    'accept-ranges': 'bytes',
    'cache-control': 'private, no-cache',
    etag: tag,
    'cross-origin-resource-policy': 'same-origin',
    'last-modified': info.modified.toUTCString(),
    ...(downloadAs
      ? {
          'content-disposition': `attachment; filename="${downloadAs.replace(/[^\w .-]/g, '_')}"; filename*=UTF-8''${encodeURIComponent(downloadAs)}`,
        }
      : {}),
  };
  const had = request.headers.get('if-none-match')?.split(/\s*,\s*/) ?? [];
  if (had.includes(tag)) return new Response(null, { status: 304, headers });
  // A part of what is no longer there is of no use: then it is sent whole.
  const partOf = request.headers.get('if-range');
  const asked = partOf === null || partOf === tag ? request.headers.get('range') : null;
  const range = /^bytes=(\d*)-(\d*)$/.exec(asked ?? '');
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
