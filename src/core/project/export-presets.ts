import type { Size } from '../scale/rect';
import type { FrameRate } from '../time/ticks';
import { TARGETS, type TargetId } from './targets';

/** What suits a target, for a project of a size. */
export interface ExportPreset {
  readonly id: TargetId;
  readonly name: string;
  readonly size: Size;
  readonly frameRate: FrameRate;
  readonly quality: 'small' | 'good' | 'high';
}

const QUALITY: Partial<Record<TargetId, ExportPreset['quality']>> = {
  deck: 'small',
  archive: 'high',
};

/**
 * Presets for the targets that a project's shape fits. Where the target's size is not smaller than
 * the project's, it is the project's own: enlarging in the export only invents pixels, which a
 * player can do as well.
 */
export function presetsFor(canvas: Size & { readonly frameRate: FrameRate }): ExportPreset[] {
  const { width, height } = canvas;
  return TARGETS.filter(
    (target) => Math.abs(target.width * height - target.height * width) < Math.max(width, height),
  ).map((target) => ({
    id: target.id,
    name: target.name,
    size: target.width < width ? { width: target.width, height: target.height } : { width, height },
    frameRate: canvas.frameRate,
    quality: QUALITY[target.id] ?? 'good',
  }));
}
