import { listPresets, savePreset } from '@/contract/presets';
import { PresetBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { listPresets as list, savePreset as save } from '@/server/presets';

export const dynamic = 'force-dynamic';

export const GET = serve(listPresets, ({ context, params }) => list(context, params.kind));

export const POST = serve(savePreset, PresetBody, async ({ context, params, body }) => ({
  id: await save(context, params.kind, body.name, body.value),
}));
