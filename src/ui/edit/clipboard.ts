import type { StoreApi } from 'zustand';
import { call } from '@/contract/call';
import { bringFootage } from '@/contract/footage';
import { footageOf, withFootage, type Snippet } from '@/core/edit/clipboard';
import type { CopiedSpan } from '@/core/edit/span-copy';
import { tell, tellFault } from '../shell/notices-store';
import type { EditorState } from './session/state';

/*
 * What was copied is kept in the browser's storage, so that another project in another tab can
 * paste it.
 */

const KEY = 'vistum-clipboard';

/** Clips, or one of the things that stand beside them. */
export type Copied = { readonly snippet: Snippet } | { readonly span: CopiedSpan };

/** Keeps what was copied; says so where it is too much. */
export function writeClipboard(copied: Copied): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(copied));
  } catch {
    tellFault('That is too much to copy at once. Choose a shorter range or fewer clips.');
  }
}

/**
 * What can be pasted into the open project, with the footage it needs brought over; says why there
 * is nothing.
 */
export async function readClipboard(store: StoreApi<EditorState>): Promise<Copied | null> {
  const text = localStorage.getItem(KEY);
  if (!text) {
    tellFault(
      'Nothing was copied yet. Select clips or another thing, or set a range, and copy first.',
    );
    return null;
  }
  const copied = JSON.parse(text) as Copied;
  if ('span' in copied) return copied;
  const { snippet } = copied;
  const { id, sources } = store.getState();
  const missing = footageOf(snippet).filter((footageId) => !sources.footage[footageId]);
  if (!missing.length) return { snippet };
  try {
    const { names, restored, added } = await call(bringFootage, {
      params: { id },
      body: { footageIds: missing },
    });
    await waitFor(store, Object.values(names));
    if (restored.length)
      tell(`${restored.join(', ')} had been deleted from Footage and was brought back.`);
    if (added.length)
      tell(`${added.join(', ')} ${added.length === 1 ? 'was' : 'were'} added to Footage.`);
    return { snippet: withFootage(snippet, names) };
  } catch (error) {
    tellFault(error);
    return null;
  }
}

/** Settles when the editor knows of footage; the server tells of it by its own way. */
function waitFor(store: StoreApi<EditorState>, ids: readonly string[]): Promise<void> {
  const there = () => ids.every((id) => store.getState().sources.footage[id]);
  return new Promise((resolve, reject) => {
    if (there()) return resolve();
    const timer = setTimeout(() => {
      stop();
      reject(new Error('The recordings did not arrive. Try to paste again.'));
    }, 10_000);
    const stop = store.subscribe(() => {
      if (!there()) return;
      clearTimeout(timer);
      stop();
      resolve();
    });
  });
}
