'use client';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsString, Max, MaxLength, Min, MinLength } from 'class-validator';
import { useRouter } from 'next/navigation';
import 'reflect-metadata';
import { useForm } from 'react-hook-form';
import { call } from '@/contract/call';
import { createProject } from '@/contract/projects';
import { TARGETS, type TargetId } from '@/core/project/targets';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { Field, inputLook } from '../parts/fields';
import { tellFault } from '../shell/notices-store';
import { USUAL_RATES } from '@/core/time/rates';

class NewProjectForm {
  @IsString()
  @MinLength(1, { message: 'Give the project a name.' })
  @MaxLength(200, { message: 'A name has at most 200 letters.' })
  name!: string;

  @Type(() => Number)
  @IsInt({ message: 'The width is a whole number of pixels.' })
  @Min(16, { message: 'The width is at least 16 px.' })
  @Max(7680, { message: 'The width is at most 7680 px.' })
  width!: number;

  @Type(() => Number)
  @IsInt({ message: 'The height is a whole number of pixels.' })
  @Min(16, { message: 'The height is at least 16 px.' })
  @Max(7680, { message: 'The height is at most 7680 px.' })
  height!: number;

  @IsString()
  target!: TargetId;

  @IsIn(USUAL_RATES.map(([name]) => name))
  rate!: string;
}

/** Asks where the tutorial will be shown first; size follows from it and can be changed. */
export function NewProjectDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const router = useRouter();
  const { register, handleSubmit, setValue, formState } = useForm<NewProjectForm>({
    resolver: classValidatorResolver(NewProjectForm),
    defaultValues: { name: '', target: 'web', width: 1920, height: 1080, rate: '30' },
  });
  const { errors, isSubmitting } = formState;
  const submit = handleSubmit(async ({ name, target, width, height, rate }) => {
    try {
      const frameRate = USUAL_RATES.find(([label]) => label === rate)![1];
      const even = (n: number) => Math.round(n / 2) * 2;
      const { id } = await call(createProject, {
        body: { name, width: even(width), height: even(height), frameRate, target },
      });
      router.push(`/projects/${id}/outline`);
    } catch (error) {
      tellFault(error);
    }
  });
  const fault = errors.name ?? errors.width ?? errors.height;
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="New project"
      description="The target decides shape and size. Both can be changed later, also to those of your footage."
    >
      <form onSubmit={(e) => void submit(e)} className="grid gap-3">
        <Field label="Name">
          {(id) => <input id={id} autoFocus {...register('name')} className={inputLook} />}
        </Field>
        <Field label="Target">
          {(id) => (
            <select
              id={id}
              className={inputLook}
              onChange={(e) => {
                const target = TARGETS.find((t) => t.id === e.target.value)!;
                setValue('target', target.id);
                setValue('width', target.width);
                setValue('height', target.height);
              }}
            >
              {TARGETS.map((target) => (
                <option key={target.id} value={target.id}>
                  {target.name} ({target.width}×{target.height} px)
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Width (px)">
          {(id) => (
            <input
              id={id}
              type="number"
              {...register('width')}
              className={`${inputLook} numbers`}
            />
          )}
        </Field>
        <Field label="Height (px)">
          {(id) => (
            <input
              id={id}
              type="number"
              {...register('height')}
              className={`${inputLook} numbers`}
            />
          )}
        </Field>
        <Field label="Frame rate" hint="Screen recordings are usually 30 fps.">
          {(id) => (
            <select id={id} {...register('rate')} className={inputLook}>
              {USUAL_RATES.map(([label]) => (
                <option key={label} value={label}>
                  {label} fps
                </option>
              ))}
            </select>
          )}
        </Field>
        {fault && (
          <p role="alert" className="text-fault">
            {fault.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="primary" disabled={isSubmitting}>
            {isSubmitting ? 'Making it…' : 'Make project'}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
