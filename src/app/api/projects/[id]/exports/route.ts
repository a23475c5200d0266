import { listExports, requestExport } from '@/contract/exports';
import { listExports as list, requestExport as request } from '@/server/export/job';
import { DEFAULT_SETTINGS } from '@/server/export/settings';
import { ExportBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(listExports, ({ context, params }) => list(context, params.id));

export const POST = serve(requestExport, ExportBody, ({ context, params, body }) => {
  const { width, height, frameRate, quality, range, format, bitRate, calm } = body;
  return request(context, params.id, {
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
