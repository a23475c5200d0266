import type { FootageRect } from '@/core/project/model';
import { route } from './route';

/** Something set up once and used again, under a name. */
export interface Preset<T = unknown> {
  readonly id: string;
  readonly name: string;
  readonly value: T;
}

export const listAreas = route<readonly Preset<FootageRect>[]>()('GET', '/api/presets/area');
export const saveArea = route<
  { readonly id: string },
  { readonly name: string; readonly value: FootageRect }
>()('POST', '/api/presets/area');
export const renameArea = route<null, { readonly name: string }>()(
  'PATCH',
  '/api/presets/area/:id',
);
export const deleteArea = route()('DELETE', '/api/presets/area/:id');
