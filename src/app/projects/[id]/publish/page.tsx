import { PublishPlace } from '@/ui/publish/PublishPlace';

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  return <PublishPlace id={(await params).id} />;
}
