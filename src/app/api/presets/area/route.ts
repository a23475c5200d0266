import { AreaPresetBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { listPresets, savePreset } from '@/server/presets';

export const dynamic = 'force-dynamic';

export const GET = handle(async () => listPresets('area'));

export const POST = handle(async (request) => {
  const { name, value } = await readBody(request, AreaPresetBody);
  return { id: await savePreset('area', name, value) };
});
