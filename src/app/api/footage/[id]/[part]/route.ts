import { join } from 'node:path';
import { footageFolder } from '@/server/footage/paths';
import { findServedFootage } from '@/server/footage/view';
import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string; part: string }> };

const PARTS: Readonly<Record<string, { file: string; type: string }>> = {
  proxy: { file: 'proxy.mp4', type: 'video/mp4' },
  sound: { file: 'sound.webm', type: 'audio/webm' },
  thumbs: { file: 'thumbs.jpg', type: 'image/jpeg' },
  peaks: { file: 'peaks.bin', type: 'application/octet-stream' },
};

export const GET = handle<Context>(async (request, { params }) => {
  const { id, part } = await params;
  const found = Object.hasOwn(PARTS, part) ? PARTS[part]! : null;
  if (!found) throw notFound('file');
  const row = await findServedFootage(id);
  return sendFile(request, join(footageFolder(row.id), found.file), found.type);
});
