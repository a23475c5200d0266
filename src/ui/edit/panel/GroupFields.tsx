'use client';
import { ClipGroup } from '@/core/project/parts/lane';
import { Button } from '../../parts/Button';
import { useRun } from '../commands/use-run';
import { useEditor } from '../store';
import { TextOf } from './TextOf';

/** The group that what is selected belongs to. */
export function GroupFields({ groupId }: { groupId: string }) {
  const name = useEditor((s) => s.project.groups.find((g) => g.id === groupId)?.name ?? '');
  const open = useEditor((s) => s.openGroup === groupId);
  const apply = useEditor((s) => s.apply);
  const run = useRun();
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="font-semibold">Group</legend>
      <TextOf
        id={groupId}
        label="Name"
        value={name}
        most={ClipGroup.properties.name.maxLength}
        onDone={(text) => apply('rename-group', { groupId, name: text })}
      />
      <span className="flex gap-2">
        <Button onClick={() => run('open-group')}>
          {open ? 'Close the group' : 'Open to edit inside'}
        </Button>
        <Button onClick={() => run('ungroup')}>Ungroup</Button>
      </span>
    </fieldset>
  );
}
