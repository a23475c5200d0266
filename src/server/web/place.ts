import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { cache } from 'react';
import { localContext } from '../context';
import { findProject, openProjectText } from '../documents/documents';
import { suggestCanvas } from '../projects';

/** The name of a project for the head of its places; empty for one that is not there. */
export const nameOfProject = cache(async (id: string): Promise<string> => {
  try {
    return (await findProject(await localContext(), id)).name;
  } catch {
    // The place itself says what is wrong when it is opened.
    return '';
  }
});

/** What the tab of a place is called: the project first, since tabs are narrow. */
export async function placeMetadata(id: string, place: string): Promise<Metadata> {
  const name = await nameOfProject(id);
  return { title: name ? `${name} · ${place}` : place };
}

/** Characters of a project that are sent with its page; a longer one is asked for by itself. */
const MOST = 500_000;

/**
 * What opening a project answers, as JSON text, to be sent with the page of a place; null where the
 * place has to ask: when it is reached from within the application, whose last save may still be
 * under way; when the project is long; and when it can't be opened, which the place then explains.
 */
export async function openedForPage(id: string): Promise<string | null> {
  if ((await headers()).has('rsc')) return null;
  try {
    const context = await localContext();
    const suggestion = await suggestCanvas(context, id);
    const text = await openProjectText(context, id, { suggestion });
    return text.length > MOST ? null : text;
  } catch {
    return null;
  }
}
