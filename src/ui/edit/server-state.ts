import { factsFor, UNDECIDED, type FootageView } from '@/contract/footage';
import { address } from '@/contract/route';
import { projectEvents, type ProjectState } from '@/contract/state';
import type { FootageFacts, Sources } from '@/core/project/sources';

/** Listens to a project's state; the answer ends it. The browser connects again by itself. */
export function listen(
  projectId: string,
  onState: (state: ProjectState) => void,
  onConnection: (connected: boolean) => void,
): () => void {
  const events = new EventSource(address(projectEvents, { id: projectId }));
  events.onmessage = (message: MessageEvent<string>) =>
    onState(JSON.parse(message.data) as ProjectState);
  events.onopen = () => onConnection(true);
  events.onerror = () => onConnection(false);
  return () => events.close();
}

/** Ready footage as `core` knows it, with what was loaded so far of what it shows. */
export function sourcesOf(
  footage: readonly FootageView[],
  known: Omit<Sources, 'footage'>,
): Sources {
  const facts: Record<string, FootageFacts> = {};
  for (const view of footage)
    if (view.facts && view.status === 'ready' && view.role !== UNDECIDED)
      facts[view.id] = factsFor(view, view.role, view.facts);
  return { footage: facts, ...known };
}
