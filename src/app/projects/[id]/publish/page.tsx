import type { Metadata } from 'next';
import { nameOfProject, placeMetadata } from '@/server/web/place';
import { PublishPlace } from '@/ui/publish/PublishPlace';

interface Props {
  readonly params: Promise<{ readonly id: string }>;
}

export const generateMetadata = async ({ params }: Props): Promise<Metadata> =>
  placeMetadata((await params).id, 'Publish');

export default async function Page({ params }: Props) {
  const { id } = await params;
  return <PublishPlace id={id} name={await nameOfProject(id)} />;
}
