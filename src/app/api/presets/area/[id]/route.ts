import { deleteArea, renameArea } from '@/contract/presets';
import { RenameBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { deletePreset, renamePreset } from '@/server/presets';

export const PATCH = serve(renameArea, RenameBody, ({ context, params, body }) =>
  renamePreset(context, params.id, body.name),
);

export const DELETE = serve(deleteArea, ({ context, params }) => deletePreset(context, params.id));
