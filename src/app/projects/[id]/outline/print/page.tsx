import { localContext } from '@/server/context';
import { openProject } from '@/server/documents/documents';
import { PrintedOutline } from '@/ui/outline/PrintedOutline';

export const dynamic = 'force-dynamic';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { name, project } = await openProject(await localContext(), (await params).id);
  return <PrintedOutline name={name} project={project} />;
}
