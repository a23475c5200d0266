import type { SavedCallout } from '@/core/callout/saved';
import type { CalloutStyle } from '@/core/callout/style';
import type { Taste } from '@/core/framing/taste';
import type { FootageRect, Layout, SavedLooks } from '@/core/project/model';
import { route } from './route';

/** What is set up once and used again in every project, by its kind. */
export interface PresetValues {
  /** A part of the screen that is recorded. */
  readonly area: FootageRect;
  /** How framings are planned. */
  readonly taste: Taste;
  /** How the pointer looks. */
  readonly pointer: SavedLooks;
  /** How screen and presenter share the picture. */
  readonly layout: Layout;
  /** How a callout looks. */
  readonly style: CalloutStyle;
  /** A callout with all that it is. */
  readonly callout: SavedCallout;
}
export type PresetKind = keyof PresetValues;

/** Something set up once and used again, under a name. */
export interface Preset<T = unknown> {
  readonly id: string;
  readonly name: string;
  readonly value: T;
}

/** What is saved of a kind; the kind says what its values are. */
export const listPresets = route<readonly Preset[]>()('GET', '/api/presets/:kind');
export const savePreset = route<
  { readonly id: string },
  { readonly name: string; readonly value: object }
>()('POST', '/api/presets/:kind');
export const renamePreset = route<null, { readonly name: string }>()(
  'PATCH',
  '/api/presets/:kind/:id',
);
export const deletePreset = route()('DELETE', '/api/presets/:kind/:id');
