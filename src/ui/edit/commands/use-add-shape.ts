import type { NewShape } from '@/core/callout/draw';
import { useSession } from '../store';
import { CommandContext } from './context';
import { addShape } from './shapes';

/** Adds a callout at the playhead, or has it drawn on the Picture. */
export function useAddShape(): (shape: NewShape) => void {
  const session = useSession();
  return (shape) =>
    addShape(new CommandContext(session.store, null), shape, (time) => session.seek(time));
}
