'use client';
import { useForm } from 'react-hook-form';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { Field, inputLook } from '../parts/fields';

interface Props {
  readonly name: string;
  readonly hint?: string;
  readonly onClose: () => void;
  readonly onRename: (name: string) => void;
}

export function RenameDialog({
  name,
  hint = 'The name is also that of exported files.',
  onClose,
  onRename,
}: Props) {
  const { register, handleSubmit, formState } = useForm({
    mode: 'onChange',
    defaultValues: { name },
  });
  const rename = handleSubmit(({ name: wanted }) => {
    onRename(wanted.trim());
    onClose();
  });
  return (
    <Dialog open onClose={onClose} title="Rename" description={hint}>
      <form className="grid gap-3" onSubmit={(e) => void rename(e)}>
        <Field label="Name">
          {(id) => (
            <input
              id={id}
              autoFocus
              maxLength={200}
              {...register('name', { validate: (wanted) => !!wanted.trim() })}
              className={inputLook}
            />
          )}
        </Field>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={!formState.isValid}>
            Rename
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
