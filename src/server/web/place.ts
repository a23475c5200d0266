import type { Metadata } from 'next';
import { cache } from 'react';
import { localContext } from '../context';
import { findProject } from '../documents/documents';

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
