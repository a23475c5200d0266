import { listAreas, saveArea } from '@/contract/presets';
import { AreaPresetBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { listAreas as list, savePreset } from '@/server/presets';

export const dynamic = 'force-dynamic';

export const GET = serve(listAreas, ({ context }) => list(context));

export const POST = serve(saveArea, AreaPresetBody, async ({ context, body }) => ({
  id: await savePreset(context, 'area', body.name, body.value),
}));
