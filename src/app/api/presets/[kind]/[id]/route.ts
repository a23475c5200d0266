import { deletePreset, renamePreset } from '@/contract/presets';
import { RenameBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { deletePreset as remove, renamePreset as rename } from '@/server/presets';

export const PATCH = serve(renamePreset, RenameBody, ({ context, params, body }) =>
  rename(context, params.kind, params.id, body.name),
);

export const DELETE = serve(deletePreset, ({ context, params }) =>
  remove(context, params.kind, params.id),
);
