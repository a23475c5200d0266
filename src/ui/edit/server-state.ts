import { factsFor, UNDECIDED, type FootageView } from '@/contract/footage';
import { address } from '@/contract/route';
import { projectEvents, type ProjectState } from '@/contract/state';
import type { FootageFacts, Preparing, Sources } from '@/core/project/sources';

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

/**
 * Footage that was looked at as `core` knows it, with what was loaded so far of what it shows. It
 * can be edited from then on; what is still being prepared is told besides.
 */
export function sourcesOf(
  footage: readonly FootageView[],
  known: Omit<Sources, 'footage' | 'preparing'>,
): Sources {
  const facts: Record<string, FootageFacts> = {};
  const preparing: Record<string, Preparing> = {};
  for (const view of footage) {
    const { id, role, status, standIns } = view;
    if (!view.facts || status === 'failed' || role === UNDECIDED) continue;
    facts[id] = factsFor(view, role, view.facts);
    if (status === 'waiting')
      preparing[id] = { pieces: standIns.pieces, sound: standIns.parts.includes('sound') };
  }
  return { footage: facts, ...known, preparing };
}
