'use client';
import { kindOf } from '@/core/callout/kinds';
import { SettingFields } from '../../parts/setting-fields';
import { capital } from '../names';
import { useEditor } from '../store';
import { CalloutBeneath } from './CalloutBeneath';
import { CalloutFollow } from './CalloutFollow';
import { CalloutLink } from './CalloutLink';
import { CalloutPicture } from './CalloutPicture';
import { CalloutPose } from './CalloutPose';
import { CalloutReading } from './CalloutReading';
import { CalloutStyles } from './CalloutStyles';
import { CalloutText } from './CalloutText';
import { Heading } from './Heading';
import { MarkText } from './MarkText';
import { SpanTimes } from './SpanTimes';

/** The settings of a callout of any kind, as its schema describes them. */
export function CalloutDetails({ id }: { id: string }) {
  const callout = useEditor((s) => s.project.callouts.find((c) => c.id === id));
  const apply = useEditor((s) => s.apply);
  if (!callout) return null;
  const kind = kindOf(callout);
  const advice = kind.advice(callout);
  return (
    <div className="grid gap-2">
      <Heading title={capital(kind.name)} />
      {'text' in callout && <CalloutText callout={callout} />}
      {callout.kind === 'picture' && <CalloutPicture callout={callout} />}
      {callout.kind === 'link' && <CalloutLink callout={callout} />}
      {kind.reading && <CalloutReading callout={callout} />}
      <CalloutBeneath key={callout.id} callout={callout} />
      <SettingFields
        schema={kind.schema}
        value={callout}
        only={kind.settings?.(callout)}
        onChange={(change, run) => apply('change-callout', { id, change }, run)}
      />
      {advice && <p className="text-xs text-ink-2">{advice}</p>}
      {callout.kind === 'highlight' && <MarkText callout={callout} />}
      <CalloutPose callout={callout} />
      <CalloutFollow callout={callout} />
      <SpanTimes span={callout} name={kind.name} />
      <CalloutStyles callout={callout} />
    </div>
  );
}
