import { EditPlace } from '@/ui/edit/EditPlace';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <EditPlace id={(await params).id} />;
}
