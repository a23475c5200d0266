import { listAreas, saveArea } from '@/contract/presets';
import { AreaPresetBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { listAreas as list, savePreset } from '@/server/presets';

export const dynamic = 'force-dynamic';

export const GET = serve(listAreas, () => list());

export const POST = serve(saveArea, AreaPresetBody, async ({ body }) => ({
  id: await savePreset('area', body.name, body.value),
}));
