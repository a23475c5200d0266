import type { Metadata } from 'next';
import { nameOfProject, openedForPage, placeMetadata } from '@/server/web/place';
import { EditPlace } from '@/ui/edit/EditPlace';

interface Props {
  readonly params: Promise<{ readonly id: string }>;
}

export const generateMetadata = async ({ params }: Props): Promise<Metadata> =>
  placeMetadata((await params).id, 'Edit');

export default async function Page({ params }: Props) {
  const { id } = await params;
  return <EditPlace id={id} name={await nameOfProject(id)} first={await openedForPage(id)} />;
}
