import { listExports, requestExport } from '@/server/export/job';
import { DEFAULT_SETTINGS } from '@/server/export/settings';
import { handle, readBody } from '@/server/http/handle';
import { ExportBody } from '@/server/http/bodies';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => listExports((await params).id));

export const POST = handle<Context>(async (request, { params }) => {
  const { width, height, frameRate, quality, range, format, bitRate, calm } = await readBody(
    request,
    ExportBody,
  );
  return requestExport((await params).id, {
    ...DEFAULT_SETTINGS,
    ...(format && { format }),
    bitRate: bitRate ?? null,
    calm: calm ?? false,
    width,
    height,
    frameRate: { num: frameRate.num, den: frameRate.den },
    quality,
    range: range ? { start: range.start, end: range.end } : null,
  });
});
