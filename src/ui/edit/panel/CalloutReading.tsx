'use client';
import { kindOf } from '@/core/callout/kinds';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { sceneAt } from '@/core/scene/scene';
import { useEditor, useTransport } from '../store';

/** What is to be said of a callout as it is seen at the playhead. */
export function CalloutReading({ callout }: { callout: Callout }) {
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const said = useTransport(({ playhead }) => {
    const on = calloutScene(sceneAt(project, sources, playhead), callout);
    return on && (kindOf(callout).reading?.(callout, on) ?? null);
  });
  return said && <p className="text-xs text-ink">{said}</p>;
}
